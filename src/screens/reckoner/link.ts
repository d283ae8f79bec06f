import type { Draft, Form } from "@/core/form";
import { getIn, setIn } from "@/core/form";

/** Named as no field of a tool is. */
const TOOL = "reckon";

/** Where what is typed into a tool is kept on this device. */
export const draftKey = ({ id }: { readonly id: string }) => `pelota.draft.reckoner.${id}`;

/** The tool and the inputs that a link carries: what its form does not ask for is left out. */
export function inLink<Known>(
  search: string,
  formOf: (tool: string) => Form<object, Known> | undefined,
): { tool?: string; draft?: Draft } {
  const asked = new URLSearchParams(search);
  const tool = asked.get(TOOL) ?? undefined;
  const form = tool === undefined ? undefined : formOf(tool);
  if (!tool || !form) return {};
  let draft: Draft = {};
  for (const name of Object.keys(form.fields)) {
    const value = asked.get(name);
    if (value !== null) draft = setIn(draft, name, value);
  }
  return Object.keys(draft).length > 0 ? { tool, draft } : { tool };
}

/** A link to a tool with what was typed into it. */
export function linkTo<Known>(tool: string, form: Form<object, Known>, draft: Draft): string {
  const says = new URLSearchParams({ [TOOL]: tool });
  for (const name of Object.keys(form.fields)) {
    const value = getIn(draft, name);
    if (typeof value === "string" && value !== "") says.set(name, value);
  }
  return `?${says}`;
}
