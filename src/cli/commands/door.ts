import { readFileSync } from "node:fs";
import type * as yup from "yup";
import { BadInput, validate } from "@/core/input";

/** A command: JSON (or text) in, JSON out. Throws BadInput for what it cannot take. */
export interface Command {
  /** `arguments` when files named there take the place of the standard input */
  readonly reads?: "arguments";
  run(input: string, args: readonly string[]): unknown | Promise<unknown>;
}

export function parse<T>(schema: yup.Schema<unknown>, input: string): T {
  let data: unknown;
  try {
    data = JSON.parse(input);
  } catch {
    throw new BadInput("The input is not JSON: it is empty, cut off or has a stray character");
  }
  return validate<T>(schema, data);
}

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
