/** Intents: the only way a show or the hands change. */
import { createDraft, finishDraft, type Draft } from "immer";
import { z } from "../../units/zod";
import { demandOf } from "../checking/demand";
import { diffOf, type Diff } from "./diff";
import { faultRefusal } from "../checking/faultWords";
import { attempt, fail, isRefusal, type Refusal } from "../refusal";
import type { World } from "../world";

export type WorldDraft = Draft<World>;

/** A new record's id: the letter of its kind and the show's next count. */
export const newId = (world: WorldDraft, letter: string): string => `${letter}${world.show.nextId++}`;

export interface IntentCard<K extends string = string, S extends z.ZodRawShape = z.ZodRawShape> {
  kind: K;
  schema: z.ZodObject<S & { kind: z.ZodLiteral<K> }>;
  /** Changes the draft, or ends with `fail`. */
  apply(world: WorldDraft, intent: z.infer<z.ZodObject<S & { kind: z.ZodLiteral<K> }>>): void;
  /** What it would do, in plain words, before it is done. */
  says(world: World, intent: z.infer<z.ZodObject<S & { kind: z.ZodLiteral<K> }>>): string;
  /** The lines that do the same in this world, one after another. */
  lines(world: World, intent: z.infer<z.ZodObject<S & { kind: z.ZodLiteral<K> }>>): string[];
}

export interface Intent {
  kind: string;
  [field: string]: unknown;
}

/** A card and the maker of its intents. */
export interface DefinedIntent<K extends string, S extends z.ZodRawShape> extends IntentCard<K, S> {
  of(fields: z.input<z.ZodObject<S>>): Intent;
}

/** Makes the card of an intent: its schema, what it does, its words and its lines. */
export function defineIntent<K extends string, S extends z.ZodRawShape>(card: {
  kind: K;
  fields: S;
  apply: IntentCard<K, S>["apply"];
  says: IntentCard<K, S>["says"];
  lines: IntentCard<K, S>["lines"];
}): DefinedIntent<K, S> {
  const schema = z.strictObject({ kind: z.literal(card.kind), ...card.fields }) as unknown as IntentCard<
    K,
    S
  >["schema"];
  return {
    kind: card.kind,
    schema,
    apply: card.apply,
    says: card.says,
    lines: card.lines,
    of: (fields) => ({ kind: card.kind, ...fields }),
  };
}

export type Registry = ReadonlyMap<string, IntentCard>;

/** Cards by their kind. */
export const registryOf = (cards: readonly unknown[]): Registry =>
  new Map((cards as IntentCard[]).map((card) => [card.kind, card]));

function refuseField(kind: string, issue: z.core.$ZodIssue): never {
  const { what, cure } = faultRefusal(kind.replace(/([A-Z])/g, " $1").toLowerCase(), issue.path, issue);
  return fail(what, cure);
}

export interface Done {
  world: World;
  diff: Diff;
}

/**
 * Applies intents together: all or none.
 * @returns the new world and the diff, or the refusal of the first that cannot be done; then nothing changed.
 * @throws on an intent that no card knows or whose fields are not what its schema says.
 */
export function applyIntents(registry: Registry, world: World, intents: readonly Intent[]): Done | Refusal {
  let after = world;
  const result = attempt(() => {
    for (const intent of intents) {
      const card = registry.get(intent.kind);
      if (!card) throw new Error(`no intent is called ${intent.kind}`);
      const parsed = card.schema.safeParse(intent);
      if (!parsed.success) refuseField(card.kind, parsed.error.issues[0]!);
      // A draft each: what one has put in place as a whole, the next may change in part.
      const draft = createDraft<WorldDraft>(after);
      card.apply(draft, parsed.data);
      after = finishDraft(draft);
    }
  });
  if (isRefusal(result)) return result;
  const diff = diffOf(world, after);
  return demandOf(world, after, diff) ?? { world: after, diff };
}
