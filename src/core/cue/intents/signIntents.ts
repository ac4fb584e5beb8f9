/** Signing looks off, taking a signature back, and bringing a signed look back, as intents. */
import { plainShow } from "../../palette/intents";
import { defineIntent } from "../../show/change/intent";
import { IdSchema } from "../../show/ids";
import { cueText, exact } from "../../show/words/lineText";
import { asItWas } from "../../show/change/plainly";
import { fail } from "../../show/refusal";
import { cuesOf } from "../../show/world";
import { cueIn, cueLabel, keepingLooks, listIn, snapshot } from "./cueDraft";
import { cuesWithin } from "./cleanIntent";
import { storeEntries } from "../effects";
import { lookToSign, othersIn, signedEntries } from "../signed";
import { plural } from "../../units/plural";

const inCue = { list: IdSchema, cue: IdSchema };

/** The looks of some cues are agreed on: they are kept as they are now. */
export const signOff = defineIntent({
  kind: "signOff",
  fields: { ...inCue, thru: IdSchema.optional() },
  apply(world, { list: id, cue, thru }) {
    cueIn(world, id, cue);
    const list = listIn(world, id);
    const plain = snapshot(list);
    const show = plainShow(world);
    const within = cuesWithin(plain, cue, thru);
    for (const [at, { id: own }] of cuesOf(plain).entries())
      if (within.has(own)) list.cues[own]!.signed = lookToSign(show, plain, at);
  },
  says: (world, { list, cue, thru }) =>
    thru === undefined
      ? `signs off the look of ${cueLabel(world, list, cue)}: any later change of it is told`
      : `signs off ${plural(cuesWithin(world.show.lists[list]!, cue, thru).size, "look")}: any later change of them is told`,
  lines: (world, { list, cue, thru }) => [
    `sign off ${cueText(world, list, cue)}${thru === undefined ? "" : ` thru ${exact(world.show.lists[list]?.cues[thru]?.number ?? 0)}`}`,
  ],
});

export const dropSignature = defineIntent({
  kind: "dropSignature",
  fields: inCue,
  apply(world, { list, cue: id }) {
    const cue = cueIn(world, list, id);
    if (!cue.signed) fail(`cue ${exact(cue.number)} is not signed off`);
    delete cue.signed;
  },
  says: (world, { list, cue }) => `takes the signature of ${cueLabel(world, list, cue)} back`,
  lines: (world, { list, cue }) => [`drop signature ${cueText(world, list, cue)}`],
});

/** Stores what gives a cue its signed look again, as hard values; the next cue keeps its look. */
export const bringBack = defineIntent({
  kind: "bringBack",
  fields: inCue,
  apply(world, { list: listId, cue: id }) {
    const list = listIn(world, listId);
    const cue = cueIn(world, listId, id);
    const { number } = cue;
    const plain = snapshot(list);
    const show = plainShow(world);
    const signed = plain.cues[id]!.signed ?? fail(`cue ${exact(number)} is not signed off`);
    const at = cuesOf(plain).findIndex((c) => c.id === id);
    const entries = signedEntries(signed, othersIn(show, plain, at, signed));
    if (Object.keys(entries).length === 0) fail(`cue ${exact(number)} looks as it was signed off`);
    const edit = () => storeEntries(show, list, cue, entries, snapshot, asItWas(list));
    keepingLooks(world, list, [id], edit, { number, touched: Object.keys(entries) });
  },
  says: (world, { list, cue }) =>
    `brings ${cueLabel(world, list, cue)} back to its signed look by values stored there; the next cue keeps its look`,
  lines: (world, { list, cue }) => [`bring back ${cueText(world, list, cue)}`],
});
