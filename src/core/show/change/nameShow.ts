/** Naming the show, as an intent. */
import { defineIntent } from "./intent";
import { quote } from "../words/lineText";
import { fail } from "../refusal";
import { ShowNameSchema } from "../schema";

export const nameShow = defineIntent({
  kind: "nameShow",
  fields: { name: ShowNameSchema },
  apply(world, { name }) {
    if (name.trim() === "") fail("a show needs a name", "Type one in quotes");
    world.show.name = name;
  },
  says: (_, { name }) => `names the show "${name}"`,
  lines: (_, { name }) => [`set show name ${quote(name)}`],
});
