/** What another show stores, in the terms of this one: its fixtures, its types, the ids things have here. */
import { inForceAt, trackingOf } from "../cue/tracking";
import { converted } from "../rig/convert";
import { numberAt, standingIn } from "../rig/standing";
import { ofOtherType } from "../rig/swapPalettes";
import { unmarked, type Standing, type Swapping } from "../rig/way";
import { hasStops, isFrom, isStop, type Effect, type Voice } from "../show/effectSchema";
import { splitItem, splitKey, type Id, type Item, type ParamKey } from "../show/ids";
import { withLinks } from "../show/checking/links";
import { modelOf } from "../show/model";
import type { Palette } from "../show/paletteSchema";
import type { Cue, CueList, Show } from "../show/schema";
import { isLink, type Entry, type Value } from "../show/value";
import { cuesOf } from "../show/world";

/** So many values of fixtures that stand for none here. */
interface Counted {
  left: number;
}

export class Terms {
  private readonly swaps = new Map<Id, Swapping>();
  private readonly from: Show;

  /** @param ids what has come over so far, and its id here. */
  constructor(
    private readonly now: Show,
    private readonly request: { show: Show; fixtures: Readonly<Record<Id, Id>> },
    private readonly ids: ReadonlyMap<Id, Id>,
  ) {
    this.from = request.show;
    for (const [theirs, mine] of Object.entries(request.fixtures)) {
      const [a, b] = [this.from.fixtures[theirs], now.fixtures[mine]];
      if (!a || !b) continue;
      this.swaps.set(theirs, {
        fixture: theirs,
        from: modelOf(this.from, a),
        to: modelOf(now, b),
        typeOf: (id) => this.from.types[id],
        note: () => undefined,
      });
    }
  }

  bareCue(cue: Cue, named: ReadonlyMap<Id, Id>): Cue {
    const { signed: _, then, meant, blackMovesOf, reach, ...rest } = cue;
    const own = (id: Id) => this.request.fixtures[id];
    const leads = then && named.get(then);
    const to = reach && "cue" in reach ? named.get(reach.cue) : undefined;
    return {
      ...rest,
      reach: reach && "cue" in reach ? (to ? { cue: to } : null) : reach,
      ...(leads ? { then: leads } : {}),
      ...(meant ? { meant: meant.flatMap((id) => own(id) ?? []) } : {}),
      ...(blackMovesOf
        ? {
            blackMovesOf: Object.fromEntries(
              Object.entries(blackMovesOf).flatMap(([id, v]) => (own(id) ? [[own(id)!, v]] : [])),
            ),
          }
        : {}),
    };
  }

  cueEntries(list: CueList, cue: Cue, counted: Counted): Record<ParamKey, Entry> {
    const tracking = trackingOf(list, this.from);
    const at = cuesOf(list).findIndex((c) => c.id === cue.id);
    return this.entries(cue.entries, (key) => numberAt(this.from, key, inForceAt(tracking, key, at)?.entry), counted);
  }

  palette(palette: Palette, counted: Counted): Palette {
    const own = this.entries(palette.own, standingIn(this.from, palette.own), counted) as Palette["own"];
    const types: Palette["types"] = {};
    for (const [type, of] of Object.entries(palette.types)) {
      const reference = of.reference === null ? null : (this.request.fixtures[of.reference] ?? null);
      const values = Object.fromEntries(
        Object.entries(of.values).map(([place, e]) => [place, { ...e, value: this.value(e.value) }]),
      );
      types[type] = { reference: reference && this.now.fixtures[reference]?.type === type ? reference : null, values };
    }
    // Fixtures mapped to another type follow as they would after a swap.
    for (const swap of this.swaps.values()) {
      const [a, b] = [swap.from.type.id, swap.to.type.id];
      if (a === b || !palette.types[a] || types[b]) continue;
      const made = ofOtherType(this.from, palette.types[a], swap);
      if (Object.keys(made.values).length === 0) continue;
      types[b] = {
        reference: this.request.fixtures[swap.fixture]!,
        values: Object.fromEntries(
          Object.entries(made.values).map(([place, e]) => [place, { ...e, value: this.value(e.value) }]),
        ),
      };
    }
    const values = Object.fromEntries(
      Object.entries(palette.any.values).map(([name, value]) => [name, this.value(value)]),
    );
    return { ...palette, own, types, any: { ...palette.any, values } };
  }

  private entries(
    entries: Readonly<Record<ParamKey, Entry>>,
    standing: Standing,
    counted: Counted,
  ): Record<ParamKey, Entry> {
    const made: Record<ParamKey, Entry> = {};
    const byFixture = new Map<Id, Record<ParamKey, Entry>>();
    for (const key in entries) {
      const { fixture } = splitKey(key);
      const own = byFixture.get(fixture) ?? {};
      own[key] = entries[key]!;
      byFixture.set(fixture, own);
    }
    for (const [theirs, own] of byFixture) {
      const mine = this.request.fixtures[theirs];
      const swap = this.swaps.get(theirs);
      if (!mine || !swap) {
        counted.left += Object.keys(own).length;
        continue;
      }
      const other = JSON.stringify(swap.from.specs) !== JSON.stringify(swap.to.specs);
      for (const [key, entry] of Object.entries(other ? converted(own, swap, standing) : own)) {
        if (other && entry.of !== undefined) continue;
        const plain = other ? unmarked(entry) : entry;
        const { value, effect, ...rest } = plain;
        made[`${mine}${key.slice(theirs.length)}`] = {
          ...rest,
          ...(value === undefined ? {} : { value: this.value(value) }),
          ...(effect === undefined ? {} : { effect: this.effect(effect) }),
        };
      }
    }
    return made;
  }

  items(items: readonly Item[]): Item[] {
    return items.flatMap((i) => {
      const { fixture } = splitItem(i);
      const own = this.request.fixtures[fixture];
      return own ? [own + i.slice(fixture.length)] : [];
    });
  }

  private value<V extends Value>(value: V): V {
    return typeof value === "object" && isLink(value)
      ? { ...value, palette: this.ids.get(value.palette) ?? value.palette }
      : value;
  }

  voice(voice: Voice): Voice {
    const linked = withLinks(voice, (palette) => ({ palette: this.ids.get(palette) ?? palette }));
    if (hasStops(linked) || typeof linked.wave !== "object" || !("own" in linked.wave)) return linked;
    return { ...linked, wave: { ...linked.wave, own: this.ids.get(linked.wave.own) ?? linked.wave.own } };
  }

  private effect(effect: Effect): Effect {
    if (isStop(effect)) return effect;
    return isFrom(effect)
      ? { ...effect, from: this.ids.get(effect.from) ?? effect.from }
      : { ...effect, plays: this.voice(effect.plays) };
  }
}
