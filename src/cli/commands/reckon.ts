import { BadInput } from "@/core/input";
import { TOOLS, toolOf } from "@/core/reckoner";
import { type Command, guarded, parse } from "./door";

/** A tool of the reckoner by its name, its inputs on stdin: what the page says, for scripts. */
export const reckon: Command = {
  run(input, args) {
    const tool = toolOf(args[0] ?? "");
    if (!tool) throw new BadInput(`Name the calculation: one of ${TOOLS.map((t) => t.id).join(", ")}`, "tool");
    const body = parse<object>(tool.form.schema, input);
    return guarded(() => tool.reckon(body));
  },
};
