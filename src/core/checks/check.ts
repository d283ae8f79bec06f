import type { ObjectSchema } from "yup";
import type { HouseMethods, Limits } from "../shop/settings";
import type { Quantity } from "../units";
import type { Layout, VehicleFacts, ZoneId } from "../vehicle";

export type Outcome = "pass" | "fail" | "unsure" | "void";

/** A number that a verdict rests on; with its interval (95 %), its limit and where the limit comes from. */
export interface Measure {
  readonly name: string;
  /** A quantity, or a bare percentage. */
  readonly value: Quantity | { readonly value: number; readonly unit: "%" };
  readonly low?: number;
  readonly high?: number;
  readonly limit?: string;
  readonly limitSource?: string;
}

/** What a check says of a zone: proved tight, leaking, merely reached by smoke, or not reached. */
export interface ZoneKnowledge {
  readonly zone: ZoneId;
  readonly state: "tight" | "leaking" | "reached" | "not-reached";
  /** Joint that leaks, for `leaking`. */
  readonly joint?: string;
  readonly why: string;
}

export interface Verdict {
  readonly outcome: Outcome;
  /** One line a technician would say. */
  readonly headline: string;
  readonly measures: readonly Measure[];
  /** Why, in order of weight; for void: which trap, for unsure: what would settle it. */
  readonly reasons: readonly string[];
  /** What the suspects engine weighs; a void check has none. */
  readonly observation?: string;
  readonly zones: readonly ZoneKnowledge[];
}

/** All that judging depends on besides the record. */
export interface CheckContext {
  readonly vehicle: VehicleFacts;
  readonly layout: Layout;
  readonly limits: Limits;
  readonly house: HouseMethods;
}

/** What is shown before a step, acknowledged once per job. */
export type CautionId =
  | "running-engine"
  | "smoke-vapour"
  | "enrichment-gas"
  | "compressed-air"
  | "hot-exhaust"
  | "emission-devices";

/** Something a setup disturbs: goes on the off-the-car list when done, comes off when put back. */
export interface Displacement {
  readonly joint?: string;
  readonly what: string;
}

export interface Plan {
  readonly steps: readonly { readonly text: string; readonly caution?: CautionId }[];
  readonly displaces: readonly Displacement[];
  readonly cautions: readonly CautionId[];
  readonly clocks: readonly { readonly name: string; readonly seconds: number }[];
  /** Set when the check does not work on this vehicle: why, and what does. */
  readonly refused?: string;
}

/** The one shape of every check. Functions and all, so it never crosses from server to client. */
export interface CheckKind<Record extends object = object, Aim = unknown> {
  readonly id: CheckId;
  readonly name: string;
  /** What passing and failing are called for this kind; unsure and void are the same for all. */
  readonly words: { readonly pass: string; readonly fail: string };
  readonly schema: ObjectSchema<object>;
  plan(context: CheckContext, aim: Aim): Plan;
  judge(record: Record, context: CheckContext): Verdict;
}

export type CheckId = "trims" | "smoke" | "look";

/** The verdict word of an outcome, as this kind of check says it. */
export function verdictWord(kind: Pick<CheckKind, "words">, outcome: Outcome): string {
  return outcome === "pass"
    ? kind.words.pass
    : outcome === "fail"
      ? kind.words.fail
      : outcome === "unsure"
        ? "Not sure yet"
        : "Void — proves nothing";
}

/** The usual cautions; local rules and licensed practice come first. */
export const CAUTION_TEXTS: Record<CautionId, string> = {
  "running-engine": "Running engine: exhaust extraction on, hair, sleeves and leads clear of belts and fans.",
  "smoke-vapour": "Smoke and vapour: ventilate, do not breathe it. Never heated smoke into a full or hot tank.",
  "enrichment-gas": "Enrichment gas burns: no hot parts or sparks near, extinguisher at hand, ventilate.",
  "compressed-air": "Compressed air: eyes covered, open slowly, never above the weakest part's rating.",
  "hot-exhaust": "Hot exhaust and coolant: let it cool or keep hands away.",
  "emission-devices": "Emission devices stay on and working: plugs and blanks come off again.",
};
