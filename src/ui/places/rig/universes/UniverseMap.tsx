"use client";

import { Button, Menu, NumberInput } from "@mantine/core";
import { useMemo, useState } from "react";
import { numberText } from "@/core/dmx/wire";
import { unpatch } from "@/core/patch/intents";
import { copyUniverse, unpatchUniverse } from "@/core/patch/universeIntents";
import { addressText, freeRun, occupancyOf, SLOTS } from "@/core/show/address";
import { AskNumber } from "@/ui/base/parts/AskNumber";
import { useSession, useShow } from "@/ui/show/useSession";
import { DmxView } from "./DmxView";
import { universeCards, type UniverseCard } from "./owners";
import classes from "./Universes.module.css";
import { plural } from "@/core/units/plural";

/** All universes at a glance, and one of them slot by slot. */
export function UniverseMap() {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const [chosen, setChosen] = useState<number | null>(null);
  const [size, setSize] = useState<number | string>(12);
  const [copying, setCopying] = useState<number | null>(null);
  const cards = useMemo(() => universeCards(show), [show.fixtures, show.types, show.outputs]); // oxlint-disable-line react-hooks/exhaustive-deps
  const card = cards.find((c) => c.universe === chosen) ?? cards[0];
  const next = useMemo(
    () => freeRun(occupancyOf(show), Math.min(SLOTS, Math.max(1, Number(size) || 1)), card?.universe ?? 1),
    // oxlint-disable-next-line react-hooks/exhaustive-deps
    [show.fixtures, show.types, size, card?.universe],
  );
  if (!card)
    return (
      <p className={classes.empty}>
        No fixture has an address yet, so nothing goes down the wire. Patch some fixtures first.
      </p>
    );
  return (
    <div className={classes.map}>
      <nav className={classes.cards} aria-label="Universes">
        {cards.map((c) => (
          <CardButton key={c.universe} card={c} chosen={c === card} onChoose={() => setChosen(c.universe)} />
        ))}
      </nav>
      <div className={classes.one}>
        <header className={classes.head}>
          <strong>Universe {card.universe}</strong>
          <span className="muted">
            {plural(card.fixtures, "fixture")}, {SLOTS - card.used} of 512 slots free
          </span>
          <label className={classes.run}>
            next free run of{" "}
            <NumberInput
              size="xs"
              w={64}
              hideControls
              min={1}
              max={512}
              value={size}
              onChange={setSize}
              aria-label="Slots wanted"
            />{" "}
            <b className="num">{addressText(next)}</b>
          </label>
          <Menu position="bottom-end" shadow="md">
            <Menu.Target>
              <Button size="compact-sm" variant="default" ml="auto">
                Universe {card.universe} …
              </Button>
            </Menu.Target>
            <Menu.Dropdown>
              <Menu.Item onClick={() => setCopying(card.universe)}>
                Also send these fixtures on another universe …
              </Menu.Item>
              <Menu.Item
                disabled={card.fixtures === 0}
                onClick={() => session.act([unpatchUniverse.of({ universe: card.universe })])}
              >
                Unpatch its {plural(card.fixtures, "fixture")}
              </Menu.Item>
              <Menu.Item onClick={() => session.act([unpatch.of({ fixtures: Object.keys(show.fixtures) })])}>
                Unpatch everything
              </Menu.Item>
            </Menu.Dropdown>
          </Menu>
        </header>
        {copying !== null && (
          <AskNumber
            title={`Send the fixtures of universe ${copying} to another too`}
            label="Universe"
            start=""
            min={1}
            max={63_999}
            button="Copy"
            onDone={(to) => session.act([copyUniverse.of({ from: copying, to })])}
            onClose={() => setCopying(null)}
          />
        )}
        <DmxView universe={card.universe} />
        <p className={classes.hint}>
          Press a slot to select its fixture; drag it to another address, or onto a universe for its first free run. The
          small number is the fixture, the bar its live level.
        </p>
      </div>
    </div>
  );
}

function CardButton({ card, chosen, onChoose }: { card: UniverseCard; chosen: boolean; onChoose(): void }) {
  const output = useShow((s) => s.world.show.outputs[card.universe]);
  const bridge = useShow((s) => s.wire.bridge);
  const rate = bridge?.sending.find((s) => s.universe === card.universe)?.perSecond;
  return (
    <button
      type="button"
      className={classes.card}
      aria-pressed={chosen}
      onClick={onChoose}
      data-testid={`universe-${card.universe}`}
      data-universe-card={card.universe}
    >
      <span>
        <b className="num">{card.universe}</b> <span className="muted num">{card.used}/512</span>
      </span>
      <svg viewBox="0 0 512 10" preserveAspectRatio="none" className={classes.bar} aria-hidden>
        {card.runs.map(([start, length]) => (
          <rect key={start} x={start - 1} y={0} width={Math.max(1, length - 1)} height={10} />
        ))}
      </svg>
      <span className={classes.out} title={output && numberText(output)}>
        {output ? `${output.protocol === "artnet" ? "Art-Net" : "sACN"} ${output.number}` : "not sent"}
        {output && <span className="num"> {bridge ? `${(rate ?? 0).toFixed(0)}/s` : "no bridge"}</span>}
      </span>
    </button>
  );
}
