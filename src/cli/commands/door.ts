import { readFileSync } from "node:fs";
import type * as yup from "yup";
import { BadInput, parseJson, validate } from "@/core/input";

/** A command: JSON (or text) in, JSON out, or a text that is CSV. Throws BadInput for what it cannot take. */
export interface Command {
  /** `arguments` when files named there take the place of the standard input; `nothing` when it is never read */
  readonly reads?: "arguments" | "nothing";
  run(input: string, args: readonly string[]): unknown | Promise<unknown>;
}

export const parse = <T>(schema: yup.Schema<unknown>, input: string): T =>
  validate<T>(schema, parseJson(input, "The input is not JSON: it is empty, cut off or has a stray character"));

/** The equations refuse with RangeError; at this door that is bad input. */
export function guarded<T>(work: () => T, path = ""): T {
  try {
    return work();
  } catch (error) {
    if (error instanceof RangeError) throw new BadInput(error.message, path);
    throw error;
  }
}

/** A text file by its path; one that is not there is bad input. */
export function readText(path: string): string {
  try {
    return readFileSync(path, "utf8");
  } catch {
    throw new BadInput(`There is no file "${path}"`, "path");
  }
}
