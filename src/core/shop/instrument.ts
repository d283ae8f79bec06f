import { v4 as uuid } from "uuid";
import * as yup from "yup";
import {
  choice,
  endsAboveDivision,
  type FormState,
  fields,
  formOf,
  plain,
  type RecordOf,
  SCALE_ENDS,
  text,
  typedQuantity,
} from "../form";
import { BadInput } from "../input";
import { isQuantity, parseQuantity, type Quantity, quantitySchema, UNITS } from "../units";

/** Which way from the air outside a gauge reads. */
export const READS = { vacuum: "Vacuum", pressure: "Pressure" } as const;

const dimensionOf = (value: Quantity | undefined) =>
  isQuantity(value) && UNITS[value.unit].dimension === "voltage" ? "voltage" : "pressure";

/** A quantity of what a gauge or a meter measures: its unit says which it is. */
const measured = (missing?: string) =>
  plain<Quantity>(
    yup.mixed<Quantity>().test("measured", function (value) {
      if (value === undefined) return true;
      try {
        quantitySchema({ dimension: dimensionOf(value) }).validateSync(value, { strict: true });
        return true;
      } catch (error) {
        return this.createError({ message: (error as Error).message });
      }
    }),
    missing,
  );

/** Text as typed, its unit saying what it measures; one without a unit is in the division's. Throws BadInput for what is neither. */
function readMeasured(raw: string, division: unknown): Quantity {
  const own = typeof division === "string" && raw !== division ? parseMeasured(division) : undefined;
  const parsed = parseMeasured(raw, own?.ok ? own.value.unit : undefined);
  if (!parsed.ok) throw new BadInput(`${parsed.message}; volts for a meter: 0.01 V`, "instrument");
  const { kind: _, ...plain } = parsed.value;
  return plain;
}
function parseMeasured(raw: string, unit?: Quantity["unit"]) {
  const as = (dimension: "voltage" | "pressure") =>
    parseQuantity(raw, { dimension, ...(unit && UNITS[unit].dimension === dimension ? { unit } : {}) });
  const volts = as("voltage");
  return volts.ok ? volts : as("pressure");
}

/** A gauge or meter: what it measures and how finely. */
export const instrumentFields = fields({
  id: plain<string>(yup.string()).known(() => uuid()),
  name: text({ name: "The instrument", label: "Gauge or meter", missing: "Name the instrument", max: 60 }),
  /** One division of its scale; the unit says what it measures */
  division: measured("State one division of its scale").asked({
    type: "text",
    label: "One division",
    example: "0.5 inHg",
    read: readMeasured,
    write: typedQuantity,
  }),
  /** The most that it shows, either way from nothing; not said where left out */
  end: measured()
    .asked({
      type: "text",
      label: "Scale ends at, if known",
      example: "30 inHg",
      read: (raw: string, { value }: FormState<never>) => readMeasured(raw, value("division")),
      write: typedQuantity,
    })
    .optional(),
  /** The one way that its scale reads; both where left out */
  reads: choice(READS, {
    label: "It reads",
    list: true,
    silent: ["", "Vacuum and pressure"],
    wrong: "It reads vacuum, pressure, or both",
  }).optional(),
}).rule("end", SCALE_ENDS, (instrument) => endsAboveDivision(instrument as Instrument));
export type Instrument = RecordOf<typeof instrumentFields>;

const dimensionTyped = (typed: unknown) => {
  const parsed = parseMeasured(String(typed ?? ""));
  return parsed.ok ? dimensionOf(parsed.value) : undefined;
};
const isMeter = ({ value }: FormState<unknown, "division">) => dimensionTyped(value("division")) === "voltage";
export const instrumentForm = formOf<undefined>()(instrumentFields, { ask: { reads: { counts: (state) => !isMeter(state) } } });
