/** A setting of a holding line: one row of the table. */
import type { Args, ArgsOf } from "./args";
import type { Building } from "./building";

export interface Setting {
  syntax: string;
  about: string;
  example: string;
  apply(args: Args, building: Building): void;
}

/** A row of the table: what it reads is typed by its syntax line. */
export const setting = <const S extends string>(row: {
  syntax: S;
  about: string;
  example: string;
  apply(args: ArgsOf<S>, building: Building): void;
}): Setting => ({ ...row, apply: (args, building) => row.apply(args as ArgsOf<S>, building) });
