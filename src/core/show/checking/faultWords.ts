/** What a schema finds wrong, in a programmer's words. */
import { z } from "../../units/zod";
import { refuse, type Refusal } from "../refusal";

const FIELDS: Record<string, string> = {
  up: "fade up",
  down: "fade down",
  delayUp: "delay up",
  delayDown: "delay down",
  after: "wait",
  backTime: "back time",
  releaseTime: "release time",
  entries: "stored values",
  upTo: "reach",
  from: "start",
  selection: "selected items",
  held: "held values",
};

/** The last named part of a path: "name", "fade up". */
function fieldOf(path: readonly PropertyKey[]): string {
  const name =
    [...path]
      .map(String)
      .reverse()
      .find((part) => !/^\d+$/.test(part) && !/^[a-z]\d+(\.|$)/.test(part)) ?? "whole";
  return FIELDS[name] ?? name.replace(/([A-Z])/g, " $1").toLowerCase();
}

const counted = (value: number | bigint): string => value.toLocaleString("en");

/**
 * A fault as a refusal. @param who whose fault it is: "fixture 12". @param path where it lies; its last
 * name is the field.
 */
export function faultRefusal(who: string, path: readonly PropertyKey[], issue: z.core.$ZodIssue): Refusal {
  const field = fieldOf(path);
  const its = `${who}: the ${field}`;
  const cure = "Nothing was changed";
  switch (issue.code) {
    case "too_big":
      if (issue.origin === "string")
        return refuse(`${its} would be longer than ${counted(issue.maximum)} characters`, "Choose a shorter one");
      if (issue.origin === "array")
        return refuse(`${who} would have more than ${counted(issue.maximum)} ${field}, which is the most`, cure);
      return refuse(`${its} would be past ${counted(issue.maximum)}, which is the most`, cure);
    case "too_small":
      if (issue.origin === "string" || issue.origin === "array") return refuse(`${its} would be empty`, "Give it one");
      return refuse(`${its} would be below ${counted(issue.minimum)}, which is the least`, cure);
    case "invalid_type":
      return refuse(`${its} is missing or is no ${issue.expected}`, cure);
    case "invalid_union":
    case "invalid_value":
      return refuse(`${its} is none of those that are known`, cure);
    case "custom":
      return refuse(`${its} cannot be set to that: ${issue.message.toLowerCase()}`, cure);
    default:
      return refuse(`${its} is not written as it should be`, cure);
  }
}
