/** What is suspicious about cues and lists. */
import { deleteCue, setCue, setList } from "../cue/intents/intents";
import { isLitIn, lifeOf, usedIn } from "../cue/life";
import { lengthsOf } from "../cue/lateMoves";
import { inForceAt, trackingOf } from "../cue/tracking";
import { kindOf } from "../play/lists/kinds/kinds";
import { runsOnTheSpot } from "../play/lists/kinds/cues";
import { resolveEntry } from "../program/resolve";
import { rangeOf } from "../fixture/parameters";
import { specOf } from "../show/model";
import { splitKey } from "../show/ids";
import type { Cue, CueList, Show } from "../show/schema";
import { ends, sameValue } from "../show/value";
import { cuesOf, listsByNumber, type World } from "../show/world";
import { writeCue } from "../cue/intents/writeCueIntent";
import { cueName, fixturesText, type Finding } from "./finding";
import { plural } from "../units/plural";

/** Whether a cue stores nothing but what would track in just the same. */
function changesNothing(show: Show, list: CueList, at: number): boolean {
  const cue = cuesOf(list)[at]!;
  const entries = Object.entries(cue.entries);
  if (at === 0 || cue.fresh || entries.length === 0 || entries.some(([, e]) => e.effect !== undefined)) return false;
  const tracking = trackingOf(list, show);
  return entries.every(([key, entry]) => {
    const before = inForceAt(tracking, key, at - 1)?.entry;
    return before ? sameValue(before, entry) : ends(entry, "value");
  });
}

export function* cueFindings({ show }: World): Generator<Finding> {
  for (const list of listsByNumber(show)) {
    const cues = cuesOf(list);
    if (kindOf(list).goes && runsOnTheSpot(list))
      yield {
        key: `on the spot ${list.id}`,
        concern: "Cues",
        what: `List ${list.number} "${list.name}" comes round in no time`,
        why: "It stops in its last cue instead of running for ever.",
        list: list.id,
        cures: [
          {
            says: "Wait a second before its first cue",
            intents: [setCue.of({ list: list.id, cue: cues[0]!.id, trigger: { kind: "auto", after: 1 } })],
          },
        ],
      };
    for (const [at, cue] of cues.entries()) {
      const about = { concern: "Cues" as const, list: list.id, cue: cue.id };
      if (Object.keys(cue.entries).length === 0 && !cue.fresh)
        yield {
          ...about,
          key: `empty ${list.id} ${cue.id}`,
          what: `${capital(cueName(list, cue))} stores nothing`,
          why: "Its look is the one before it.",
          cures: [{ says: "Delete it", intents: [deleteCue.of({ list: list.id, cue: cue.id, keepLooks: true })] }],
        };
      else if (changesNothing(show, list, at))
        yield {
          ...about,
          key: `same ${list.id} ${cue.id}`,
          what: `${capital(cueName(list, cue))} changes nothing`,
          why: "All it stores would track in just the same. Blocked on purpose, it does no harm.",
          cures: [{ says: "Delete it", intents: [deleteCue.of({ list: list.id, cue: cue.id, keepLooks: true })] }],
        };
      yield* timingFindings(show, list, at);
      yield* outOfRange(show, list, cue);
    }
    if (list.kind === "list") yield* unreachable(list);
    yield* shutFindings(show, list);
    yield* doubled(
      cues.map((c) => ({ name: c.name, label: cueName(list, c) })),
      `cues of list ${list.number}`,
    );
  }
  yield* fighting(show);
  yield* doubled(
    listsByNumber(show).map((l) => ({ name: l.name, label: `list ${l.number}` })),
    "lists",
  );
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** Follow-ons that come while what they move is still on its way to somewhere else; own timing longer than the cue shows. */
function* timingFindings(show: Show, list: CueList, at: number): Generator<Finding> {
  const cues = cuesOf(list);
  const cue = cues[at]!;
  const { up, down, delayUp, delayDown } = cue.times;
  const shown = Math.max(
    up + delayUp,
    down + delayDown,
    ...Object.values(cue.times.families).map((t) => (t.delay ?? 0) + (t.fade ?? 0)),
  );
  const long = Object.entries(cue.entries).flatMap(([key, { time }]) => {
    const own = (time?.delay ?? 0) + (time?.fade ?? 0);
    return time && own > shown + 0.001 ? [{ key, own }] : [];
  });
  if (long.length > 0) {
    const most = Math.max(...long.map((l) => l.own));
    const fixtures = [...new Set(long.map((l) => splitKey(l.key).fixture))];
    yield {
      key: `own ${list.id} ${cue.id} ${most}`,
      concern: "Cues",
      what: `${capital(cueName(list, cue))} takes longer than it shows: ${most} s`,
      why: `Own timing of ${fixturesText(show, fixtures)} goes on after the cue's ${shown} s.`,
      list: list.id,
      cue: cue.id,
      fixtures,
      cures: [],
    };
  }
  const next = cues[at + 1];
  if (next?.trigger.kind !== "auto") return;
  const { after } = next.trigger;
  const late = Object.keys(next.entries).filter((key) => {
    const time = cue.entries[key]?.time;
    return time !== undefined && (time.delay ?? 0) >= after - 0.001 && (time.delay ?? 0) > 0;
  });
  if (late.length > 0 && lengthsOf(show, list)[at]! > after)
    yield {
      key: `overtakes ${list.id} ${next.id}`,
      concern: "Cues",
      what: `${capital(cueName(list, next))} overtakes ${cueName(list, cue)}`,
      why: `It follows after ${after} s, before ${plural(late.length, "value has", "values have")} begun to move: they are never seen.`,
      list: list.id,
      cue: next.id,
      cures: [
        {
          says: "Follow when it is complete",
          intents: [setCue.of({ list: list.id, cue: next.id, trigger: { kind: "autoDone", after: 0 } })],
        },
      ],
    };
}

/** Values that the fixture cannot give: it goes as far as it can. */
function* outOfRange(show: Show, list: CueList, cue: Cue): Generator<Finding> {
  const keys = Object.entries(cue.entries).flatMap(([key, { attribute, value }]) => {
    const fn =
      typeof value === "number" ? specOf(show, key)?.functions.find((f) => f.attribute === attribute) : undefined;
    if (!fn) return [];
    const [low, high] = rangeOf(fn);
    return (value as number) < low - 0.001 || (value as number) > high + 0.001 ? [{ key, low, high }] : [];
  });
  if (keys.length === 0) return;
  const fixtures = [...new Set(keys.map(({ key }) => splitKey(key).fixture))];
  yield {
    key: `range ${list.id} ${cue.id} ${keys.length}`,
    concern: "Cues",
    what: `${capital(cueName(list, cue))} asks more of ${fixturesText(show, fixtures)} than ${fixtures.length === 1 ? "it" : "they"} can do`,
    why: "The value lies outside of the range of its type: it stops at the end.",
    list: list.id,
    cue: cue.id,
    fixtures,
    cures: [
      {
        says: "Store what they can do",
        intents: [
          writeCue.of({
            list: list.id,
            cue: cue.id,
            values: Object.fromEntries(
              keys.map(({ key, low, high }) => [
                key,
                { ...cue.entries[key]!, value: Math.min(high, Math.max(low, cue.entries[key]!.value as number)) },
              ]),
            ),
            unset: [],
            looks: "track",
          }),
        ],
      },
    ],
  };
}

/** Cues no go leads to: the one before leads elsewhere, and no other leads here. */
function* unreachable(list: CueList): Generator<Finding> {
  const cues = cuesOf(list);
  const led = new Set(cues.flatMap((c) => (c.then ? [c.then] : [])));
  for (const [at, cue] of cues.entries()) {
    const before = cues[at - 1];
    if (!before?.then || before.then === cue.id || led.has(cue.id)) continue;
    yield {
      key: `unreachable ${list.id} ${cue.id}`,
      concern: "Cues",
      what: `No go leads to ${cueName(list, cue)}`,
      why: `${capital(cueName(list, before))} leads elsewhere. It can still be reached by number.`,
      list: list.id,
      cue: cue.id,
      cures: [
        { says: "Let the cue before lead on", intents: [setCue.of({ list: list.id, cue: before.id, then: null })] },
      ],
    };
  }
}

/** Fixtures that are lit with a closed shutter. */
function* shutFindings(show: Show, list: CueList): Generator<Finding> {
  const tracking = trackingOf(list, show);
  const cues = cuesOf(list);
  const shut = new Map<number, string[]>();
  for (const fixture of usedIn(show, tracking)) {
    const key = `${fixture.id}.0.Shutter1`;
    if (!tracking.columns.has(key)) continue;
    const spec = specOf(show, key);
    const life = lifeOf(show, list, fixture);
    let was = false;
    cues.forEach((_, at) => {
      const entry = inForceAt(tracking, key, at)?.entry;
      const resolved = entry && spec && resolveEntry(show, key, spec, entry);
      const closed = resolved !== undefined && resolved.fn === 0 && resolved.value < 0.5 && isLitIn(life, at);
      if (closed && !was) shut.set(at, [...(shut.get(at) ?? []), fixture.id]);
      was = closed;
    });
  }
  for (const [at, fixtures] of shut) {
    const cue = cues[at]!;
    yield {
      key: `shut ${list.id} ${cue.id} ${fixtures.join()}`,
      concern: "Cues",
      what: `From ${cueName(list, cue)} on ${fixturesText(show, fixtures)} ${fixtures.length === 1 ? "is" : "are"} lit with the shutter closed`,
      why: "The lamp gives nothing, whatever its intensity.",
      list: list.id,
      cue: cue.id,
      fixtures,
      cures: [
        {
          says: "Open the shutter there",
          intents: [
            writeCue.of({
              list: list.id,
              cue: cue.id,
              values: Object.fromEntries(
                fixtures.map((id) => [`${id}.0.Shutter1`, { attribute: "Shutter1", value: 1 }]),
              ),
              unset: [],
              looks: "track",
            }),
          ],
        },
      ],
    };
  }
}

/** Two lists of one priority that use the same parameters: whoever went last has them. */
function* fighting(show: Show): Generator<Finding> {
  const lists = listsByNumber(show).filter((l) => l.kind === "list" && Object.keys(l.cues).length > 0);
  for (const [i, a] of lists.entries())
    for (const b of lists.slice(i + 1)) {
      // Of two that bow out to each other only one is on.
      if (a.priority !== b.priority || (a.bowOut && b.bowOut)) continue;
      const [one, other] = [trackingOf(a, show).columns, trackingOf(b, show).columns];
      const both = [...one.keys()].filter((key) => other.has(key));
      if (both.length === 0) continue;
      const fixtures = [...new Set(both.map((key) => splitKey(key).fixture))];
      yield {
        key: `fight ${a.id} ${b.id}`,
        concern: "Cues",
        what: `Lists ${a.number} and ${b.number} both use ${both.length} parameters of ${fixturesText(show, fixtures)}`,
        why: "Whichever went last has them. With a higher priority one of them always wins.",
        list: b.id,
        fixtures,
        cures: [
          {
            says: `Let list ${b.number} win`,
            intents: [setList.of({ list: b.id, change: { priority: Math.min(100, a.priority + 1) } })],
          },
        ],
      };
    }
}

/** Names that several bear. */
export function* doubled(named: readonly { name: string; label: string }[], of: string): Generator<Finding> {
  const byName = new Map<string, string[]>();
  for (const { name, label } of named)
    if (name.trim()) byName.set(name.trim().toLowerCase(), [...(byName.get(name.trim().toLowerCase()) ?? []), label]);
  for (const [name, labels] of byName)
    if (labels.length > 1)
      yield {
        key: `name ${of} ${name}`,
        concern: of.startsWith("cues") || of === "lists" ? "Cues" : "Palettes, groups and effects",
        what: `${labels.length} ${of} are called "${name}"`,
        why: `A line that names it means the first: ${labels.slice(0, 8).join(", ")}.`,
        cures: [],
      };
}
