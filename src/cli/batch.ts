import * as yup from "yup";
import { BadInput, strictObject } from "@/core/input";
import { commandCalled } from "./commands";
import { parse } from "./commands/door";

interface Request {
  readonly command: string;
  readonly input?: unknown;
  readonly args?: string[];
}

const requestSchema = strictObject({
  command: yup.string().required("command is missing: the name of what to run"),
  input: yup.mixed().nullable().optional(),
  args: yup.array().of(yup.string().required()).max(10).optional(),
});

/** Answers one line of a batch, {command, input, args?}: what the command says, or `error` with what was wrong and where. */
export async function answerLine(line: string): Promise<unknown> {
  try {
    const { command, input, args = [] } = parse<Request>(requestSchema, line);
    // A text, such as a hex log, is given as it is; everything else as the JSON that it is.
    const text = typeof input === "string" ? input : input === undefined ? "" : JSON.stringify(input);
    return await commandCalled(command).run(text, args);
  } catch (error) {
    return errorOf(error);
  }
}

/** Wording of what was thrown: what was wrong with the input and where, or that the program itself is at fault. */
export function errorOf(thrown: unknown): { readonly error: { readonly message: string; readonly path: string } } {
  if (thrown instanceof BadInput) return { error: { message: thrown.message, path: thrown.path } };
  return { error: { message: `The program failed on this input, please report it: ${(thrown as Error).message}`, path: "" } };
}
