/** A fixture before and after it becomes another type: which parameter of the one stands for which of the other. */
import { isEmitter, isFilter } from "../fixture/attribute";
import { functionOf, parametersOf, type ParameterSpec } from "../fixture/parameters";
import type { ChannelFunction, FixtureType, Mode } from "../fixture/type";

export interface Side {
  type: FixtureType;
  mode: Mode;
  specs: readonly ParameterSpec[];
}

export const sideOf = (type: FixtureType, mode: Mode, virtualDimmer: boolean): Side => ({
  type,
  mode,
  specs: parametersOf(mode, virtualDimmer),
});

/** Whether an attribute makes colour: what is mixed, a wheel, a hue. */
export const makesColour = (attribute: string): boolean =>
  isEmitter(attribute) || isFilter(attribute) || attribute === "Color1" || attribute === "HSB_Hue";

/** The cell of a side that stands for a cell of the other one, for an attribute; undefined where none does. */
export function cellFor(from: Side, to: Side, cell: number, has: (spec: ParameterSpec) => boolean): number | undefined {
  const there = (c: number) => from.specs.some((s) => s.cell === c && has(s));
  const ownToo = to.specs.some((s) => s.cell === 0 && has(s));
  if (cell === 0) return there(0) ? 0 : middleOf(from, has);
  if (there(cell) && from.mode.cells === to.mode.cells) return cell;
  if (from.mode.cells > 0) {
    const near = Math.min(from.mode.cells, Math.max(1, Math.ceil(((cell - 0.5) / to.mode.cells) * from.mode.cells)));
    if (there(near)) return near;
  }
  return !ownToo && there(0) ? 0 : undefined;
}

function middleOf({ specs }: Side, has: (spec: ParameterSpec) => boolean): number | undefined {
  const cells = [...new Set(specs.filter((s) => s.cell > 0 && has(s)).map((s) => s.cell))].sort((a, b) => a - b);
  return cells[Math.floor((cells.length - 1) / 2)];
}

interface Having {
  spec: ParameterSpec;
  fn: ChannelFunction;
}
const known = new WeakMap<readonly ParameterSpec[], Map<string, Having | null>>();

/** The parameter and function of a side that carry an attribute in a cell. Asked for thousands of fixtures of a mode. */
export function having({ specs }: Side, cell: number, attribute: string): Having | undefined {
  let own = known.get(specs);
  if (!own) known.set(specs, (own = new Map()));
  const name = `${cell} ${attribute}`;
  let found = own.get(name);
  if (found === undefined) {
    found = null;
    for (const spec of specs) {
      const fn = spec.cell === cell ? functionOf(spec, attribute) : undefined;
      if (fn) {
        found = { spec, fn };
        break;
      }
    }
    own.set(name, found);
  }
  return found ?? undefined;
}

type Pairs<T> = WeakMap<readonly ParameterSpec[], WeakMap<readonly ParameterSpec[], Map<string, T>>>;
const ways: Pairs<readonly number[]> = new WeakMap();
const mixes: Pairs<boolean> = new WeakMap();

/** What is known between two sides, by name. */
function between<T>(pairs: Pairs<T>, from: Side, to: Side): Map<string, T> {
  let own = pairs.get(from.specs);
  if (!own) pairs.set(from.specs, (own = new WeakMap()));
  let pair = own.get(to.specs);
  if (!pair) own.set(to.specs, (pair = new Map()));
  return pair;
}

/** The cells of a side that take what a parameter of the other one said. */
export function cellsFor(from: Side, to: Side, cell: number, attribute: string): readonly number[] {
  const pair = between(ways, from, to);
  const name = `${cell} ${attribute}`;
  let found = pair.get(name);
  if (!found) {
    const has = (spec: ParameterSpec) => functionOf(spec, attribute) !== undefined;
    const cells = [...new Set(to.specs.filter(has).map((s) => s.cell))];
    pair.set(name, (found = cells.filter((c) => cellFor(from, to, c, has) === cell)));
  }
  return found;
}

/** The parameters of a cell that make its colour. */
export function colourSpecs({ specs }: Side, cell: number): readonly ParameterSpec[] {
  let own = colourful.get(specs);
  if (!own) colourful.set(specs, (own = new Map()));
  let found = own.get(cell);
  if (!found) own.set(cell, (found = specs.filter((s) => s.cell === cell && makesColour(s.head))));
  return found;
}
const colourful = new WeakMap<readonly ParameterSpec[], Map<number, readonly ParameterSpec[]>>();

const measuredText = ({ functions: [fn] }: ParameterSpec): string => JSON.stringify([fn!.emitter, fn!.through]);

/** Whether colour is mixed alike on both sides: the same emitters and filters, of the same light. Then numbers stay what they are. */
export function mixesAlike(from: Side, to: Side, cell: number, at: number): boolean {
  const pair = between(mixes, from, to);
  const name = `${cell} ${at}`;
  let alike = pair.get(name);
  if (alike === undefined) pair.set(name, (alike = mixedAlike(from, to, cell, at)));
  return alike;
}

function mixedAlike(from: Side, to: Side, cell: number, at: number): boolean {
  const mixed = (side: Side, c: number) => colourSpecs(side, c).filter((s) => s.head !== "Color1");
  const [a, b] = [mixed(from, at), mixed(to, cell)];
  if (a.length !== b.length) return false;
  // A wheel stands for a wheel, but not where colour is only made by it on one side.
  if (a.length === 0 && !(colourSpecs(from, at).length > 0 && colourSpecs(to, cell).length > 0)) return false;
  return a.every((s) => {
    const other = b.find((o) => o.head === s.head);
    return other !== undefined && measuredText(other) === measuredText(s);
  });
}
