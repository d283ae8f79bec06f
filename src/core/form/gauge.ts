import { isQuantity, parseQuantity, type Quantity, toSi, UNITS } from "../units";
import { Field, group, quantity, type RecordOfMembers, text } from "./fields";
import type { GaugeOnHand, Read, ReadsTo } from "./form-field";

/** Why an end of scale is none. */
export const SCALE_ENDS = "A scale ends further up than one division: type the most that it shows";
export const endsAboveDivision = ({ division, end }: { readonly division?: Quantity; readonly end?: Quantity | undefined }) =>
  !isQuantity(end) ||
  !isQuantity(division) ||
  (UNITS[end.unit].dimension === UNITS[division.unit].dimension && Math.abs(toSi(end)) > Math.abs(toSi(division)));

const used = (dimension: "pressure" | "voltage") => ({
  name: text({ name: "The instrument", missing: "Name the instrument", max: 60 }),
  /** One division of its scale */
  division: quantity({ dimension }, { missing: "State one division of the instrument" }),
  /** Its reading with nothing on it */
  zero: quantity({ dimension }, { missing: "State what the instrument shows with nothing on it" }),
  /** The most that it shows, either way from nothing; not said where left out */
  end: quantity({ dimension }).optional(),
});

/** A gauge or meter as it was before the check. */
export type InstrumentUse = RecordOfMembers<ReturnType<typeof used>>;

/** Which gauge or meter was read. @param input how it is asked for. */
export const instrument = (dimension: "pressure" | "voltage", input: Readonly<Record<string, unknown>>): Field<InstrumentUse> => {
  const { parts, schema } = group(used(dimension))
    .rule("end", SCALE_ENDS, (use) => endsAboveDivision(use as InstrumentUse))
    .rule(
      "division",
      "One division of a scale is more than nothing",
      ({ division }) => !isQuantity(division) || division.value !== 0,
    );
  const { members: _, ...rest } = parts;
  return new Field({ ...rest, input: { type: "instrument", measures: dimension, ...input } }, schema);
};

/** A gauge as it stands in a form: one of the shop's by its id, or "other" with its division typed. */
export interface TypedGauge {
  readonly id?: string;
  readonly division?: string;
  readonly zero?: string;
  /** Where its scale ends, for one that the shop does not know; may be left empty */
  readonly end?: string;
  /** As a record that is corrected calls it, where the shop knows none of that name */
  readonly name?: string;
}

/** Quantity a gauge must measure, and how large readings get, SI. */
export interface GaugeRange {
  readonly measures: "pressure" | "voltage";
  readonly reach: number;
  /** Which way from the air outside; either where left out */
  readonly reads?: ReadsTo;
}

export const OTHER_GAUGE = "other";

/** Where nobody said how far it reads, a scale has about so many divisions. */
const DIVISIONS = 500;

/** The shop's instruments that measure this, the finest that reads that way and reaches so far first. */
export function fittingGauges(shop: readonly GaugeOnHand[], { measures, reach, reads }: GaugeRange): readonly GaugeOnHand[] {
  const division = (i: GaugeOnHand) => Math.abs(toSi(i.division));
  const short = (i: GaugeOnHand) =>
    (i.end ? Math.abs(toSi(i.end)) : division(i) * DIVISIONS) < reach ||
    (reads !== undefined && i.reads !== undefined && i.reads !== reads);
  return shop
    .filter((i) => UNITS[i.division.unit].dimension === measures)
    .toSorted((a, b) => Number(short(a)) - Number(short(b)) || division(a) - division(b));
}

/** Form value of a gauge, whatever a kept draft gave back. */
export const typedGauge = (raw: unknown): TypedGauge => (typeof raw === "object" && raw !== null ? (raw as TypedGauge) : {});

/** Which of the fitting gauges is chosen: the finest that reaches where nobody chose; undefined for another one. */
export const chosenGauge = (typed: TypedGauge, fitting: readonly GaugeOnHand[]): GaugeOnHand | undefined =>
  fitting.find((i) => i.id === typed.id) ?? (typed.id === OTHER_GAUGE ? undefined : fitting[0]);

/** The gauge as it goes into the record. What it shows with nothing on it is nothing, where nobody typed it. */
export function readGauge(raw: unknown, range: GaugeRange, shop: readonly GaugeOnHand[]): Read {
  const typed = typedGauge(raw);
  const known = chosenGauge(typed, fittingGauges(shop, range));
  const reading = (text: string | undefined, unit: Quantity["unit"] | undefined) => {
    const parsed = parseQuantity(String(text ?? ""), { dimension: range.measures, ...(unit ? { unit } : {}) });
    if (!parsed.ok) return parsed.message;
    const { kind: _, ...plain } = parsed.value;
    return plain;
  };
  const division = known?.division ?? reading(typed.division, undefined);
  if (typeof division === "string") {
    const unsaid = !typed.division?.trim();
    const message = !unsaid
      ? division
      : `Say how much one division of the ${range.measures === "voltage" ? "meter" : "gauge"} is, with its unit`;
    return { wrong: { message, part: "division", unsaid } };
  }
  if (toSi(division) <= 0) return { wrong: { message: "A division is more than nothing", part: "division" } };
  const zero = reading(typed.zero ?? "0", division.unit);
  if (typeof zero === "string") return { wrong: { message: zero, part: "zero" } };
  const end = known ? known.end : typed.end?.trim() ? reading(typed.end, division.unit) : undefined;
  if (typeof end === "string") return { wrong: { message: end, part: "end" } };
  if (!endsAboveDivision({ division, end })) return { wrong: { message: SCALE_ENDS, part: "end" } };
  const name = known?.name ?? typed.name ?? (range.measures === "voltage" ? "Meter" : "Gauge");
  return { value: { name, division, zero, ...(end ? { end } : {}) } satisfies InstrumentUse };
}

/** How a recorded gauge stands in a form: the shop's of that name and division, or another one. */
export function gaugeTyped(value: unknown, shop: readonly GaugeOnHand[]): TypedGauge {
  const { name, division, zero, end } = value as InstrumentUse;
  const written = (q: Quantity) => `${q.value} ${q.unit}`;
  const is = (a: Quantity | undefined, b: Quantity | undefined) => (a && written(a)) === (b && written(b));
  const same = shop.find((i) => i.name === name && is(i.division, division) && is(i.end, end));
  return {
    id: same?.id ?? OTHER_GAUGE,
    ...(same ? {} : { name, division: written(division), ...(end ? { end: written(end) } : {}) }),
    zero: written(zero),
  };
}
