/** What the options of a list mean for it now, in plain sentences. */
import type { CueList, Show } from "@/core/show/schema";
import { cuesOf } from "@/core/show/world";
import { plain } from "@/core/units/units";
import { plural } from "@/core/units/plural";

const WAYS = {
  forward: "one after another",
  backward: "backwards",
  bounce: "to and fro",
  random: "at random, never the same one twice in a row",
};

/** A sentence for each choice that matters. */
export function meaningOf(show: Show, list: CueList): string[] {
  const cues = cuesOf(list);
  const first = cues[0];
  const says: (string | false | undefined)[] = [];
  const n = plural(cues.length, "cue");
  if (list.kind === "chase")
    says.push(
      `Its ${cues.length} steps come ${WAYS[list.direction ?? "forward"]}, one every ${plain(60 / (list.bpm ?? 60), 3)} s; what moves takes ${plain(((list.share ?? 100) / 100) * (60 / (list.bpm ?? 60)), 3)} s of it.`,
      list.tempo !== undefined && `A tap of any list with tempo ${list.tempo} taps it too.`,
    );
  else if (list.kind === "morph") says.push(`Its ${cues.length} looks lie along its level; at 0 it holds nothing.`);
  else if (list.kind === "submaster") says.push("What it holds adds its highest intensity by its level.");
  else if (list.kind === "limiter") says.push("It scales the intensity of the fixtures it holds, whoever gives it.");
  else if (list.kind === "takeover") says.push("It crossfades all it holds over every list by its level.");
  else if (list.kind === "effect") {
    const effect = list.effect === undefined ? undefined : show.effects[list.effect];
    says.push(
      effect
        ? `It plays ${effect.name}: go starts it, release ends it, its level scales the mix.`
        : "It plays nothing yet.",
    );
  } else {
    says.push(
      list.timecode
        ? `${cues.filter((c) => c.at !== undefined).length} of its ${n} come by timecode; the others wait for go.`
        : list.fader === "crossfade"
          ? "Moving the lane from one end to the other is the next cue; moved back on the way, it returns."
          : `Go leads through its ${n}${first ? `, from ${plain(first.number, 3)}` : ""}; in the last it ${list.end === "stop" ? "does nothing" : list.end === "wrap" ? "goes round to the first" : "releases the list"}.`,
      list.raised === "go" && "Leaving 0 gives go.",
      list.zero === "release" && "Reaching 0 releases it at once.",
      list.blackMoves && list.fader !== "crossfade" && !list.timecode
        ? `Dark fixtures go beforehand to where they will next be lit, in ${plain(list.blackTime)} s.`
        : "Nothing moves beforehand in the dark.",
    );
  }
  says.push(
    list.htp && "Its intensity counts wherever it is the highest; all else by what came last.",
    list.priority !== 0 && `With priority ${list.priority} it wins over lists below that, whatever came last.`,
    list.bowOut && "It is released when a hand gives go to another list.",
    list.letGo && "What another list takes, it drops for good.",
    list.resume && "After a release it starts where it left off.",
  );
  return says.filter((s): s is string => typeof s === "string");
}
