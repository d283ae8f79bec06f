import { formatNumber, formatQuantity, type Quantity, UNITS } from "../units";
import type { Layout, ZoneId } from "../vehicle";

export type Outcome = "pass" | "fail" | "unsure" | "void";

/** Units of numbers that are no quantity of `units`. */
export type BareUnit = "%" | "rpm" | "strokes" | "g/s per L" | "10⁹/m³" | "λ" | "km" | "s";

/** A number that a verdict rests on; with its interval (95 %), its limit and where the limit comes from. */
export interface Measure {
  readonly name: string;
  /** A quantity, a bare percentage, an engine speed, or a count. */
  readonly value: Quantity | { readonly value: number; readonly unit: BareUnit };
  readonly low?: number;
  readonly high?: number;
  /** A correction: shown with its sign */
  readonly signed?: true;
  readonly limit?: string;
  readonly limitSource?: string;
}

const BARE_DECIMALS: Record<BareUnit, number> = {
  "%": 1,
  rpm: 0,
  strokes: 0,
  "g/s per L": 2,
  "10⁹/m³": 2,
  λ: 3,
  km: 0,
  s: 0,
};

/** A measure's value in words; `shown` writes quantities and numbers the reader's way. */
export function measureText(
  { value, signed }: Measure,
  shown: { quantity: (q: Quantity) => string; number: (n: number, decimals: number) => string } = {
    quantity: formatQuantity,
    number: formatNumber,
  },
): string {
  if (value.unit in UNITS) return shown.quantity(value as Quantity);
  const sign = signed && value.value > 0 ? "+" : "";
  return `${sign}${shown.number(value.value, BARE_DECIMALS[value.unit as BareUnit])} ${value.unit}`;
}

/** Its 95 % interval in words, empty where it has none. */
export function intervalText(m: Measure, number: (n: number, decimals: number) => string = formatNumber): string {
  if (m.low === undefined || m.high === undefined) return "";
  const decimals = m.value.unit in UNITS ? 2 : BARE_DECIMALS[m.value.unit as BareUnit];
  return ` (95 %: ${number(m.low, decimals)} to ${number(m.high, decimals)} ${m.value.unit})`;
}

/** Claim of a check on a zone: proved tight, leaking, merely reached by smoke, or not reached. */
export interface ZoneKnowledge {
  readonly zone: ZoneId;
  readonly state: "tight" | "leaking" | "reached" | "not-reached";
  /** Joint that leaks, for `leaking`. */
  readonly joint?: string;
  readonly why: string;
}

/** Verdict of a check; `Seen` are the observations that its rows weigh. */
export interface Verdict<Seen extends string = string> {
  readonly outcome: Outcome;
  /** Name of the outcome here, where the kind's own word would say too much: "Within the limit" */
  readonly word?: string;
  /** One line a technician would say. */
  readonly headline: string;
  readonly measures: readonly Measure[];
  /** Why, in order of weight; for void: which trap, for unsure: what would settle it. */
  readonly reasons: readonly string[];
  /** Observation that is weighed; a void check has none. */
  readonly observation?: Seen;
  /** Further observations, where it saw several places: each is weighed */
  readonly also?: readonly Seen[];
  /** Joints the check put to the test, whatever it said of them. */
  readonly tested?: readonly string[];
  readonly zones: readonly ZoneKnowledge[];
}

/** A verdict that proves nothing, and the trap it fell into. */
export const voidVerdict = (headline: string, trap: string): Verdict<never> => ({
  outcome: "void",
  headline,
  measures: [],
  reasons: [trap],
  zones: [],
});

/** A hole that was measured, told from none, and lies inside what must be caught. */
export const WITHIN = "Within the limit";

/** A joint's name as the vehicle's layout gives it; what is no joint of it by its own name. */
export const jointName = (layout: Layout, id: string): string => layout.joints.find((j) => j.id === id)?.name ?? id;
