/** What a line is read against. */
import type { SelContext } from "../select/expression";
import type { View } from "../show/deckSchema";
import type { ParamKey } from "../show/ids";
import type { World } from "../show/world";

export interface ReadContext extends SelContext {
  world: World;
  /** Addresses of this machine's network interfaces, where they are known. */
  interfaces?: readonly string[];
  /** How this window is arranged, where there is one. */
  arrangement?(): { place: View["place"]; settings: View["arrangement"] };
  /** The stage before masters: value and the attribute it is of. */
  stage(key: ParamKey): { value: number; attribute: string } | undefined;
  /** What is seen, masters included. */
  seen?(key: ParamKey): { value: number; attribute: string } | undefined;
}
