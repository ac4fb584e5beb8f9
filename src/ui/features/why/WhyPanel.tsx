"use client";

import { CloseButton } from "@mantine/core";
import { useEffect, useState } from "react";
import { attributeInfo, withUnit } from "@/core/fixture/attribute";
import { itemText } from "@/core/show/model";
import type { Why, WhyStep } from "@/core/play/why";
import { arm } from "@/core/program/intents";
import { select } from "@/core/select/intents";
import { item, splitKey, type ParamKey } from "@/core/show/ids";
import { isLink } from "@/core/show/value";
import type { World } from "@/core/show/world";
import { plain } from "@/core/units/units";
import { lookInside } from "@/ui/show/held/lookInside";
import { paletteMark } from "@/ui/show/held/standing";
import { usePlaces } from "@/ui/show/addresses/places";
import { editEffect } from "@/ui/show/effects/editing";
import { useSession, useShow } from "@/ui/show/useSession";
import classes from "./Why.module.css";

const LOOK_EVERY_MS = 150;

/** The whole stack behind one value, live: what wins is on top, what is hidden is struck through. */
export function WhyPanel() {
  const session = useSession();
  const key = useShow((s) => s.why);
  const world = useShow((s) => s.world);
  const [why, setWhy] = useState<Why | null>(null);
  useEffect(() => {
    if (key === null) return;
    let stop = false;
    const look = async () => {
      const found = await session.whyOf(key);
      if (!stop) setWhy(found);
    };
    void look();
    const timer = setInterval(() => void look(), LOOK_EVERY_MS);
    return () => {
      stop = true;
      clearInterval(timer);
    };
  }, [key, session]);
  useEffect(() => {
    if (key === null) return;
    const close = (event: KeyboardEvent) => event.key === "Escape" && session.showWhy(null);
    addEventListener("keydown", close);
    return () => removeEventListener("keydown", close);
  }, [key, session]);
  if (key === null || why === null || why.key !== key) return null;
  const { fixture, cell } = splitKey(key);
  const steps = [...why.steps].reverse();
  return (
    <aside className={classes.panel} aria-label="Why" data-testid="why">
      <header className={classes.head}>
        <h2>
          Why{" "}
          <button
            type="button"
            className={classes.go}
            title="Select it"
            onClick={() => session.act([select.of({ items: [item(fixture, cell)] })])}
          >
            fixture {itemText(world.show, item(fixture, cell))}
          </button>{" "}
          shows {attributeInfo(why.attribute).label.toLowerCase()} {withUnit(why.value, why.attribute)}
        </h2>
        <CloseButton aria-label="Close" onClick={() => session.showWhy(null)} />
      </header>
      <p className={classes.bytes}>
        {why.bytes.length === 0
          ? "It has no address, so nothing of it goes down the wire."
          : `${why.bytes[0]!.of ? "It has no channel of its own; its light leaves in " : ""}${why.bytes
              .map(
                (b) =>
                  `${b.of ? `${attributeInfo(b.of).label.toLowerCase()}, ` : ""}DMX ${b.universe}:${b.slot} = ${b.bytes.join(" ")}`,
              )
              .join("; ")}`}
      </p>
      <ol className={classes.steps}>
        {steps.map((step, i) => (
          <li key={i} data-hidden={step.hidden}>
            <strong>
              <Contributor world={world} step={step} parameter={why.key} />
            </strong>
            <span className="num">
              {isFactor(step) ? `${plain(step.value)} %` : withUnit(step.value, step.attribute ?? why.attribute)}
            </span>
            <span className="muted">{details(step)}</span>
          </li>
        ))}
      </ol>
    </aside>
  );
}

/** What contributes, pressed to go there: the list with its cue, the palette. */
function Contributor({ world, step, parameter }: { world: World; step: WhyStep; parameter: ParamKey }) {
  const session = useSession();
  const { go } = usePlaces();
  const { show, hands } = world;
  const list = step.list ? show.lists[step.list] : undefined;
  const value = (step.what === "programmer" ? hands.held[parameter] : list?.cues[step.cue ?? ""]?.entries[parameter])
    ?.value;
  const palette = typeof value === "object" && isLink(value) ? show.palettes[value.palette] : undefined;
  const effect = step.effect?.id ? show.effects[step.effect.id] : undefined;
  const openEffect = (id: string) => {
    editEffect(id);
    session.showWhy(null);
    go("build");
  };
  const goTo = () => {
    if (!list) return;
    session.act([arm.of({ list: list.id })], "arm");
    go("cues");
  };
  return (
    <>
      {list ? (
        <button type="button" className={classes.go} title="Go to its cues" onClick={goTo}>
          {title(world, step)}
        </button>
      ) : (
        title(world, step)
      )}
      {effect && (
        <>
          {" "}
          <button type="button" className={classes.go} title="Open the effect" onClick={() => openEffect(effect.id)}>
            ∿ {effect.name || `effect ${effect.number}`}
          </button>
        </>
      )}
      {palette && " "}
      {palette && (
        <button
          type="button"
          className={classes.go}
          title="Look inside the palette"
          onClick={() => lookInside(palette.id)}
        >
          {paletteMark(palette)}
        </button>
      )}
    </>
  );
}

const isFactor = (step: WhyStep): boolean => ["limiter", "grand", "blackout"].includes(step.what);

function title({ show }: World, step: WhyStep): string {
  const list = step.list ? show.lists[step.list] : undefined;
  const cue = list && step.cue ? list.cues[step.cue] : undefined;
  if (list && step.between) {
    const { from, to, share, level } = step.between;
    const named = (id: string) => `cue ${plain(list.cues[id]?.number ?? 0, 3)} ${list.cues[id]?.name ?? ""}`.trim();
    const way =
      from === to
        ? `in ${named(to)}`
        : `${plain(share * 100, 0)} % of the way from ${from === null ? "what lies below" : named(from)} to ${named(to)}`;
    return `${list.number} ${list.name}, ${way}, at level ${plain(level, 1)} %`;
  }
  if (list) return `${list.number} ${list.name}${cue ? `, cue ${plain(cue.number, 3)} ${cue.name}` : ""}`;
  return {
    default: "Default of the type",
    list: "A list",
    effect: "An effect",
    highest: "A list, highest",
    takeover: "A takeover",
    programmer: step.effect ? "An effect held" : "Held in the programmer",
    highlight: "Highlight",
    limiter: "Limiters",
    grand: "Grand master",
    blackout: "Blackout",
    park: "Parked",
  }[step.what];
}

/** Moved in black, in words. */
const BLACK: Record<NonNullable<WhyStep["black"]>, string> = {
  moves: "☾ moving in the dark",
  held: "☾ held: another source lights it",
  there: "☾ moved in the dark",
};

function details(step: WhyStep): string {
  if (step.what === "programmer" && step.hidden) return "blind: not on stage";
  if (step.what === "programmer" && step.effect) return `${plain(step.effect.phase * 100, 0)} % through its cycle`;
  if (step.stamp === undefined) return step.hidden ? "hidden" : "";
  return [
    step.what === "effect"
      ? `an effect, ${plain((step.effect?.phase ?? 0) * 100, 0)} % through its cycle, stamp ${step.stamp}`
      : step.what === "highest"
        ? "highest counts"
        : step.what === "takeover"
          ? "over everything"
          : `stamp ${step.stamp}`,
    step.priority ? `priority ${step.priority}` : "",
    step.level !== 100 ? `level ${plain(step.level ?? 100)} %` : "",
    step.weight !== undefined && step.weight < 1 ? `counts ${plain(step.weight * 100, 0)} %` : "",
    step.black ? BLACK[step.black] : "",
    step.progress !== undefined && step.progress < 1 ? `fading, ${plain(step.progress * 100, 0)} % there` : "",
    step.hidden ? "hidden" : "",
  ]
    .filter(Boolean)
    .join(" · ");
}
