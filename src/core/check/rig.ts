/** What is suspicious about addresses, wires and fixtures. */
import { outputFindings } from "../dmx/outputCheck";
import { address } from "../patch/intents";
import { usedIn, lifeOf } from "../cue/life";
import { trackingOf } from "../cue/tracking";
import { fixturesByNumber, type World } from "../show/world";
import { fixturesText, type Finding } from "./finding";

export function* rigFindings({ show }: World): Generator<Finding> {
  const bare = fixturesByNumber(show).filter((f) => f.addresses.length === 0 && !f.outOfService);
  if (bare.length > 0)
    yield {
      key: "no address",
      concern: "Wires and addresses",
      what: bare.length === 1 ? `Fixture ${bare[0]!.number} has no address` : `${bare.length} fixtures have no address`,
      why: `They can be programmed, but nothing of them goes down the wire: ${fixturesText(
        show,
        bare.map((f) => f.id),
      )}.`,
      fixtures: bare.map((f) => f.id),
      cures: [
        {
          says: "Give them the first free run",
          intents: [address.of({ fixtures: bare.map((f) => f.id), at: "auto" })],
        },
      ],
    };
  for (const { what, why, cure, intents } of outputFindings(show))
    yield { key: what, concern: "Wires and addresses", what, why, cures: [{ says: cure, intents }] };
  yield* neverLit(show);
}

/** Patched fixtures that no cue of any list ever lights, in a show that has cues at all. */
function* neverLit(show: World["show"]): Generator<Finding> {
  const lists = Object.values(show.lists).filter((l) => Object.keys(l.cues).length > 0);
  if (lists.length === 0) return;
  const lit = new Set(
    lists.flatMap((list) =>
      usedIn(show, trackingOf(list, show)).flatMap((f) => (lifeOf(show, list, f).turns.length > 0 ? [f.id] : [])),
    ),
  );
  const cast = new Set(
    Object.values(show.lists)
      .flatMap((l) => (l.effect ? (show.effects[l.effect]?.cast ?? []) : []))
      .map((i) => i.split(".")[0]!),
  );
  const dark = fixturesByNumber(show).filter(
    (f) => f.addresses.length > 0 && !f.outOfService && !lit.has(f.id) && !cast.has(f.id),
  );
  if (dark.length === 0) return;
  yield {
    key: `never lit ${dark.map((f) => f.number).join()}`,
    concern: "Fixtures",
    what: `${dark.length === 1 ? `Fixture ${dark[0]!.number} is` : `${dark.length} fixtures are`} never lit`,
    why: `No cue of any list lights ${fixturesText(
      show,
      dark.map((f) => f.id),
    )}.`,
    fixtures: dark.map((f) => f.id),
    cures: [],
  };
}
