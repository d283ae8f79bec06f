import * as yup from "yup";
import { strictObject } from "../input";
import { UNIT_IDS } from "../units";
import { CHANNELS, type ChannelId } from "./channels";
import type { HeaderMatch, Mapping } from "./match-header";

const choice = strictObject({
  channel: yup
    .mixed<ChannelId>()
    .nullable()
    .defined()
    .test("known", "${path}: no such channel", (id) => id === null || CHANNELS.some((c) => c.id === id)),
  unit: yup.string().oneOf(UNIT_IDS, "${path}: no such unit").optional(),
});

/** The user's choice for each header: header → channel (null: not used) and unit. */
export const mappingSchema = yup.lazy((mapping: unknown) => {
  const isObject = mapping !== null && typeof mapping === "object" && !Array.isArray(mapping);
  return yup
    .object(isObject ? Object.fromEntries(Object.keys(mapping).map((header) => [header, choice.required()])) : {})
    .strict()
    .required("A mapping goes from header to channel");
}) as unknown as yup.Schema<unknown>;

/**
 * Every column as it was read: what was chosen, and what was taken as it stood. Headers that stand there more than once are one: what
 * one of them was taken for stands for all, and which one counts is seen anew.
 */
export function decidedOn(matches: readonly HeaderMatch[], chosen: Mapping = {}): Mapping {
  const decided: Record<string, Mapping[string]> = {};
  for (const { header, channel, unit } of matches)
    if (!decided[header]?.channel) decided[header] = { channel: channel ?? null, ...(unit ? { unit } : {}) };
  return { ...decided, ...chosen };
}

/** Units that are asked for, each with the first that fits its numbers: for a hand that looked at them to confirm at once. */
export const bestGuesses = (matches: readonly HeaderMatch[]): Mapping =>
  Object.fromEntries(
    matches.flatMap(({ header, channel, unitFrom, candidates }) => {
      const [unit] = candidates ?? [];
      return channel && unitFrom === "asked" && unit ? [[header, { channel, unit }] as const] : [];
    }),
  );
