/** Everything that makes the stage, or what leaves for it, not what it seems: told at the top at all times, with the way out. */
import type { World } from "@/core/show/world";
import type { WireState } from "@/engine/messages";
import { plain } from "@/core/units/units";
import { capital } from "@/ui/base/typed/capital";
import { plural } from "@/core/units/plural";

export type TruthAct =
  | "take"
  | "consent"
  | "live"
  | "dim"
  | "unidentify"
  | "unpark"
  | "outputs"
  | "keep"
  | "reload"
  | "file"
  | "light"
  | "grand"
  | "run";

export interface Truth {
  id: string;
  /** A few words, for the top bar. */
  short: string;
  /** The whole of it. */
  text: string;
  tone: "danger" | "caution";
  /** Said in the top bar alone until it is asked for: a hand does it on purpose, and nothing is to move under it. */
  quiet?: true;
  act: { does: TruthAct; label: string };
}

export interface Standing {
  readOnly: string | null;
  world: {
    show: Pick<World["show"], "outputs" | "name">;
    hands: Pick<World["hands"], "blind" | "highlight" | "identified" | "parked">;
  };
  wire: WireState;
  /** The bridge has not been reached for a while. */
  unreached: boolean;
  /** Why nothing plays and nothing will; null while it does. */
  gone: string | null;
  /** The app does not answer. */
  appless: boolean;
  /** What was done cannot be written; it is tried again. */
  unsaved: boolean;
  /** What takes light away from all of the stage, or from all that a limiter holds. */
  masters: {
    grand: number;
    blackout: boolean;
    /** Names of limiters that are at 0. */
    shut: readonly string[];
  };
}

export function truthsOf({ readOnly, world, wire, unreached, gone, appless, unsaved, masters }: Standing): Truth[] {
  const { show, hands } = world;
  const found: Truth[] = [];
  const say = (id: string, tone: Truth["tone"], short: string, text: string, does: TruthAct, label: string) =>
    void found.push({ id, tone, short, text, act: { does, label }, ...(QUIET.has(id) ? { quiet: true } : {}) });
  if (gone !== null) say("gone", "danger", "nothing plays", `Nothing plays: ${gone}.`, "reload", "Reload");
  if (unsaved)
    say(
      "unsaved",
      "danger",
      "not saved",
      "What you do is not saved: this browser's storage does not take it. It is tried again by itself; save the show as a file meanwhile.",
      "file",
      "Save as a file",
    );
  if (appless)
    say(
      "app",
      "caution",
      "app not there",
      `The app does not answer. The show runs on in this page${unsaved ? "" : ", and is kept in this browser"}; stay here until the app is back.`,
      "outputs",
      "Outputs",
    );
  if (readOnly !== null)
    say(
      "version",
      "caution",
      "earlier version",
      `This is ${readOnly}, to look at: nothing here can be changed, and nothing leaves the machine.`,
      "keep",
      "Keep as a show of its own",
    );
  else if (Object.keys(show.outputs).length > 0) {
    const { bridge, waiting } = wire;
    if (!bridge) {
      if (unreached)
        say(
          "bridge",
          "danger",
          "nothing leaves",
          "Nothing leaves this machine: the bridge is not reached. It restarts by itself, and the outputs go on.",
          "outputs",
          "Outputs",
        );
    } else if (bridge.lost)
      say(
        "lost",
        "danger",
        "output taken",
        `The output was taken by ${holderText(bridge.holder, show.name)}: nothing of this show leaves the machine.`,
        "take",
        "Take it back",
      );
    else if (!bridge.mine && bridge.holder !== null)
      say(
        "held",
        "danger",
        "output held",
        `The output is held by ${holderText(bridge.holder, show.name)}: nothing of this show leaves the machine.`,
        "take",
        "Take the output",
      );
    if (bridge?.trouble)
      say("trouble", "danger", "output trouble", `${capital(bridge.trouble)}.`, "outputs", "Outputs");
    if (waiting.length > 0)
      say(
        "consent",
        "caution",
        "outputs wait",
        `${plural(waiting.length, "place")} this show would send to ${waiting.length === 1 ? "waits" : "wait"} for your consent: nothing goes there yet.`,
        "consent",
        "See and decide",
      );
  }
  const { grand, blackout, shut } = masters;
  if (blackout)
    say(
      "blackout",
      "danger",
      "blackout",
      "Blackout: no intensity leaves, whatever is played.",
      "light",
      "End blackout",
    );
  if (grand < 100)
    say(
      "grand",
      grand === 0 ? "danger" : "caution",
      `grand at ${plain(grand, 0)} %`,
      grand === 0
        ? "The grand master is at 0: no intensity leaves, whatever is played."
        : `The grand master is at ${plain(grand, 1)} %: all intensity is scaled to it.`,
      "grand",
      "To full",
    );
  if (shut.length > 0)
    say(
      "limiter",
      "caution",
      "limiter at 0",
      `${shut.length === 1 ? `The limiter ${shut[0]} is` : `The limiters ${shut.join(", ")} are`} at 0: what ${shut.length === 1 ? "it holds" : "they hold"} stays dark, whatever is played.`,
      "run",
      "Look at it in Run",
    );
  if (hands.blind) say("blind", "caution", "blind", "Blind: what is held is not on stage.", "live", "Go live");
  if (hands.highlight)
    say(
      "highlight",
      "caution",
      "highlight",
      "Highlight: the selection is shown full and open. It is never recorded.",
      "dim",
      "End it",
    );
  if (hands.identified.length > 0)
    say(
      "identify",
      "caution",
      "identified",
      `${plural(hands.identified.length, "fixture is", "fixtures are")} shown full and open, whatever is selected. It is never recorded.`,
      "unidentify",
      "End it",
    );
  const parked = Object.keys(hands.parked).length;
  if (parked > 0)
    say(
      "park",
      "caution",
      "parked",
      `${plural(parked, "value is", "values are")} parked: pinned over everything, whatever is played.`,
      "unpark",
      "Unpark them",
    );
  return found;
}

const QUIET: ReadonlySet<string> = new Set(["blackout", "grand", "limiter", "highlight", "identify", "park"]);

/** Windows of one browser share a show: what has its name and is not this one is open in another. */
const holderText = (name: string | null, own: string): string =>
  name === null ? "another show" : `"${name}"${name === own ? ", open in another browser" : ""}`;
