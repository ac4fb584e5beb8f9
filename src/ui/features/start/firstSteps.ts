/** The path of a new show: five steps, each ticked by what was really done, each with the line that does what is next of it. */
import { attributeInfo } from "@/core/fixture/attribute";
import { cuesOf } from "@/core/show/world";
import type { World } from "@/core/show/world";
import { namesIn } from "@/core/units/names";
import { plain } from "@/core/units/units";
import { attributesIn } from "@/ui/show/held/heldIn";

export interface FirstStep {
  name: string;
  about: string;
  /** What its button says. */
  button: string;
  done: boolean;
  /** The lines that are left of it; the first is the one to type now. */
  lines: string[];
}

/** @param played whether a cue has been played. */
export function firstSteps({ show, hands }: World, played: boolean): FirstStep[] {
  const armed = show.lists[hands.armed];
  const next = Math.floor(armed ? (cuesOf(armed).at(-1)?.number ?? 0) : 0) + 1;
  const holds = [...attributesIn(hands.held)].some((name) => attributeInfo(name).family === "Intensity");
  const selected = hands.selection.length > 0;
  return [
    {
      name: "Patch",
      about: "Say which lamps there are: here, twelve Petrel Spots.",
      button: "Patch 12 spots",
      done: namesIn(show.fixtures).length > 0,
      lines: ["patch 12 petrel-spot"],
    },
    {
      name: "Group",
      about: "Name what you will reach for together.",
      button: "Record a group",
      done: namesIn(show.groups).length > 0,
      lines: [...(selected ? [] : ["all"]), 'record group 1 "Spots"'],
    },
    {
      name: "Palette",
      about: "Colours, positions and beams to pick from, made from your rig.",
      button: "Make starter palettes",
      done: namesIn(show.palettes).length > 0,
      lines: ["starter palettes"],
    },
    {
      name: "Cue",
      about: holds ? "The look is set: store it." : "Set a look, then store it.",
      button: "Record a cue",
      done: Object.values(show.lists).some((list) => cuesOf(list).length > 0),
      lines: [...(holds ? [] : ["all at full"]), `record cue ${plain(next)} "First look"`],
    },
    {
      name: "Play",
      about: "Clear the programmer, then go: Space gives go to the armed list.",
      button: "Play it",
      done: played,
      lines: [...(namesIn(hands.held).length > 0 ? ["clear"] : []), "go"],
    },
  ];
}
