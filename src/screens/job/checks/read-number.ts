import { parseNumber } from "@/core/units";

/** A bare number as people type it; undefined while it is none. */
export function readNumber(text: string): number | undefined {
  const parsed = parseNumber(text);
  return text.trim() !== "" && parsed.ok ? parsed.value : undefined;
}
