import type { Dimension, UnitId } from "../units";
import { CHANNELS, type Channel, type ChannelId, channelById } from "./channels";
import { channelOf, splitUnit, unitIn, unitSpelt } from "./headers";

export interface HeaderMatch {
  readonly column: number;
  readonly header: string;
  readonly channel?: ChannelId;
  /** 0…1: how sure the name and the unit make us. */
  readonly confidence: number;
  /** Unit of the numbers in the file; absent for channels without one. */
  readonly unit?: UnitId;
  /** How the unit was found: in the file, by what the engine can show, or not yet: then it is asked */
  readonly unitFrom?: "file" | "worked-out" | "assumed" | "asked";
  /** Units that fit the numbers, where it is asked */
  readonly candidates?: readonly UnitId[];
  /** The unit text of a known channel that we could not read. */
  readonly unknownUnit?: string;
}

/** The user's choice for a header; remembered by header signature. */
export interface ColumnChoice {
  readonly channel: ChannelId | null;
  readonly unit?: UnitId;
}
export type Mapping = Readonly<Record<string, ColumnChoice>>;

const BARE_UNITS: Record<string, Channel["measures"][]> = {
  "%": ["percent"],
  "% vol": ["percent"],
  "vol %": ["percent"],
  "vol%": ["percent"],
  "%vol": ["percent"],
  ppm: ["ppm"],
  "ppm vol": ["ppm"],
  "ppm hexane": ["ppm"],
  rpm: ["rpm"],
  "1/min": ["rpm"],
  "u/min": ["rpm"],
  "min-1": ["rpm"],
  s: ["clock"],
  sec: ["clock"],
  ms: ["clock"],
  min: ["clock"],
  "h:m:s": ["clock"],
  v: ["volt"],
  "km/h": ["speed"],
  kph: ["speed"],
  mph: ["speed"],
  λ: ["ratio"],
};

const words = (text: string) =>
  text
    .toLowerCase()
    .replace(/[^\p{L}\p{N}%]+/gu, " ")
    .trim()
    .split(" ")
    .filter(Boolean);

/** Likeness of a header name to a spelling: 1 for the same words, less for words missing or too many. */
function likeness(name: readonly string[], spelling: readonly string[]): number {
  if (name.join("") === spelling.join("")) return 1;
  const hits = spelling.filter((w) => name.includes(w)).length;
  if (hits < spelling.length) return 0;
  // A header with other digits (bank 2, sensor 2) is another channel.
  const digits = (list: readonly string[]) => list.filter((w) => /\d/.test(w)).join(" ");
  if (spelling.some((w) => /\d/.test(w)) && digits(name) !== digits(spelling)) return 0;
  const extra = name.length - hits;
  return Math.max(0, 0.92 - 0.12 * extra);
}

/** Words that make a header another thing than the channel it looks like. */
const OTHERS = ["desired", "commanded", "target", "specified", "min", "max", "average", "requested", "setpoint"];

/** How sure a rule of `headers` makes us of a name. */
const BY_RULE = 0.95;

/** The channel a name speaks of: by rule, or by likeness to a spelling; 0…1 for how sure. */
function named(name: string): { channel: Channel; score: number } | undefined {
  const rule = channelOf(name);
  if (rule) return { channel: channelById(rule.channel), score: rule.live ? BY_RULE : BY_RULE / 2 };
  const nameWords = words(name);
  let best: { channel: Channel; score: number } | undefined;
  for (const channel of CHANNELS) {
    for (const spelling of channel.names) {
      let score = likeness(nameWords, words(spelling));
      if (nameWords.some((w) => OTHERS.includes(w))) score *= 0.5;
      if (score > (best?.score ?? 0)) best = { channel, score };
    }
  }
  return best;
}

/**
 * Matches one header (with its unit cell, if the log has a units row) to a channel.
 * @returns the best channel at confidence ≥ 0.5, or no channel. Never a silent guess: the confidence is shown, and a unit
 * that the file does not name is marked as assumed until it was held against the engine (`checkUnits`).
 */
export function matchHeader(header: string, unitCell: string | undefined, column: number): HeaderMatch {
  const { name, unitText } = splitUnit(header, unitCell);
  const best = named(name) ?? named(header);
  if (!best || best.score < 0.5) return { column, header, confidence: 0 };
  const { channel, score } = best;
  const bare = BARE_UNITS[unitText.toLowerCase()] ?? BARE_UNITS[unitSpelt(unitText) ?? ""];
  const ofChannel = channel.unit === undefined ? undefined : unitIn(unitText, channel.measures as Dimension);
  if (bare && !ofChannel) {
    const fits = bare.includes(channel.measures);
    const confidence = score * (fits ? 1 : 0.4);
    return confidence >= 0.5
      ? { column, header, channel: channel.id, confidence, ...clockUnit(channel, unitText) }
      : { column, header, confidence: 0 };
  }
  // As propane, or by mass, it is another number.
  if (channel.measures === "ppm" && unitText) return { column, header, confidence: 0 };
  if (channel.unit === undefined) return { column, header, channel: channel.id, confidence: score * 0.95 };
  if (ofChannel) return { column, header, channel: channel.id, confidence: score, unit: ofChannel, unitFrom: "file" };
  if (unitText && /[a-z°%]/i.test(unitText)) {
    return { column, header, channel: channel.id, confidence: score * 0.5, unknownUnit: unitText };
  }
  return { column, header, channel: channel.id, confidence: score * 0.8, unit: channel.unit, unitFrom: "assumed" };
}

const clockUnit = (channel: Channel, unitText: string) =>
  channel.id === "time" && unitSpelt(unitText) === "ms" ? { unitFrom: "file" as const } : {};

/** True when a header or units cell says its clock counts milliseconds. */
export const countsMilliseconds = (header: string, unitCell?: string) =>
  unitSpelt(splitUnit(header, unitCell).unitText) === "ms" || /\bms\b|_ms$|milli/i.test(header);
