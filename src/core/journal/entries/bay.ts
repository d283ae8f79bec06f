import { BAY_INSTRUMENTS } from "../../devices/instrument-fault";
import { DOORS, LAMPS } from "../../devices/light";
import { choice, fields, group, number, oneOf, type RecordOf, text } from "../../form";
import { entryKind } from "./entry-kind";

/** Beside the work itself: a hint taken, a wait skipped, something tightened by hand, light and door, an instrument looked over, the case ended. */
export const BAY_ACTS = ["hint", "wait", "tighten", "light", "look-over", "end"] as const;
export type BayAct = (typeof BAY_ACTS)[number];
/** A wait is skipped up to a weekend, min. */
const LONGEST_WAIT = 4320;

/** Steps done in a practice bay beside the work itself. */
const bayFields = fields({
  act: oneOf<BayAct>(BAY_ACTS, "What was done", { missing: "Say what was done in the bay" }),
  /** How long a wait was, min */
  minutes: number({
    name: "A wait",
    wrong: "A wait is a number of minutes",
    min: [1, "A wait lasts a minute at least"],
    max: [LONGEST_WAIT, "A wait lasts a weekend at most"],
  }).optional(),
  /** The place that was tightened */
  joint: text({ name: "Joint", max: 60 }).optional(),
  /** The light smoke is looked for with from now on, and how the bay's door stands */
  light: group({
    lamp: choice(LAMPS, { name: "The lamp", missing: "Say what smoke is looked for with" }),
    door: choice(DOORS, { name: "The door", missing: "Say how the door stands" }),
  }).optional(),
  /** Instruments that were looked over and put right */
  instrument: choice(BAY_INSTRUMENTS, { name: "The instrument" }).optional(),
})
  .rule("light", "Say what smoke is looked for with", ({ act, light }) => act !== "light" || light !== undefined)
  .rule("instrument", "Say what was looked over", ({ act, instrument }) => act !== "look-over" || Boolean(instrument))
  .rule("minutes", "Say how many minutes were waited", ({ act, minutes }) => act !== "wait" || minutes !== undefined)
  .rule("joint", "Say what was tightened", ({ act, joint }) => act !== "tighten" || Boolean(joint));
export type Bay = RecordOf<typeof bayFields>;

const WORDS: Readonly<Record<BayAct, (b: Bay) => string>> = {
  hint: () => "Hint taken",
  wait: (b) => `Waited ${b.minutes ?? 0} min`,
  tighten: (b) => `Tightened by hand: ${b.joint ?? ""}`,
  light: (b) => `Light: ${b.light?.lamp ?? ""}, door ${b.light?.door ?? ""}`,
  "look-over": (b) => `Instrument checked: ${b.instrument ?? ""}`,
  end: () => "Case ended",
};

export const bay = entryKind(bayFields, { words: (b) => WORDS[b.act](b) });
