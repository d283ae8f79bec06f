import * as yup from "yup";
import { strictObject } from "../../input";
import { isQuantity, type Quantity, quantitySchema, toSi } from "../../units";
import { percentField, type RecordSource, rpmField, secondsField, sourceField } from "../fields";
import { type EgrState, egrField, leadsBack } from "../led-back";

/** A steady moment; pressures absolute. */
export interface BoostPointRead {
  readonly rpm: number;
  readonly map?: Quantity;
  readonly charge?: Quantity;
  readonly asked?: Quantity;
  readonly maf?: Quantity;
  readonly chargeTemperature: Quantity;
  /** Percent */
  readonly actuator?: { readonly command: number; readonly position: number };
  /** Percent, where the log says how far exhaust was led back */
  readonly egr?: number;
}

/** With the key on and the engine standing: every sensor shows the air outside, and the filter's nothing. */
export interface KeyOnRead {
  /** The ECU's own sensor of the air outside */
  readonly ambient?: Quantity;
  readonly map?: Quantity;
  readonly charge?: Quantity;
  readonly exhaust?: Quantity;
  readonly filter?: Quantity;
}

/** Whether exhaust was led back at this point: then the meter misses a part of what the engine breathed. */
export const ledBack = ({ egr }: Pick<BoostPointRead, "egr">): boolean => leadsBack(egr);

/** How long boost stayed beyond what matters, and between which speeds. */
export interface Stretch {
  readonly seconds: number;
  readonly from: number;
  readonly to: number;
}

/** The charge side as a log shows it. */
export interface BoostRecord {
  readonly source: RecordSource;
  readonly points: readonly BoostPointRead[];
  readonly keyOn?: KeyOnRead;
  readonly egr: EgrState;
  /** Longest stretch that boost fell short, or went over, where a log tells */
  readonly short?: Stretch;
  readonly over?: Stretch;
  /** Delivered boost swung about what was asked */
  readonly hunts?: boolean;
  /** Boost was no longer asked for from here on: s on the log's clock, and how far it had gone */
  readonly limp?: { readonly at: number; readonly after?: Quantity };
  readonly ambient: Quantity;
  readonly warm: boolean;
}

const manifold = quantitySchema("manifold").optional().default(undefined);

export const boostPointSchema = strictObject({
  rpm: rpmField,
  map: manifold,
  charge: manifold,
  asked: quantitySchema("asked").optional().default(undefined),
  maf: quantitySchema("mafFlow").optional().default(undefined),
  chargeTemperature: quantitySchema("airTemperature").required("Type the charge air's temperature"),
  actuator: strictObject({
    command: percentField("The command", 0, 100),
    position: percentField("The position", 0, 100),
  })
    .optional()
    .default(undefined),
  egr: percentField("Exhaust led back", 0, 100).optional(),
}).test("pressure", "Type manifold or charge pressure, absolute: without one a point says nothing", (p) => {
  const { map, charge } = (p ?? {}) as { map?: unknown; charge?: unknown };
  return map !== undefined || charge !== undefined;
});

const stretch = strictObject({
  seconds: yup.number().min(0).max(7200).required(),
  from: rpmField,
  to: rpmField,
})
  .optional()
  .default(undefined);

/** Asked and delivered, one in gauge and one in absolute: the air outside lies between them. */
function mixes(record: unknown): boolean {
  const { points, ambient } = (record ?? {}) as { points?: unknown; ambient?: unknown };
  if (!Array.isArray(points) || !isQuantity(ambient)) return false;
  const air = toSi(ambient);
  return points.some((p: Partial<BoostPointRead> | undefined) => {
    const got = p?.charge ?? p?.map;
    return isQuantity(p?.asked) && isQuantity(got) && toSi(p.asked) < 0.6 * air && toSi(got) > 0.95 * air;
  });
}

export const boostSchema = strictObject({
  source: sourceField.required(),
  points: yup.array().of(boostPointSchema.required()).min(1, "Read a log, or type a point").max(400).required(),
  keyOn: strictObject({
    ambient: quantitySchema("ambient").optional().default(undefined),
    map: manifold,
    charge: manifold,
    exhaust: quantitySchema("exhaustPressure").optional().default(undefined),
    filter: quantitySchema("filterPressure").optional().default(undefined),
  })
    .optional()
    .default(undefined),
  egr: egrField,
  short: stretch,
  over: stretch,
  hunts: yup.boolean().optional(),
  limp: strictObject({
    at: secondsField("The onset"),
    after: quantitySchema("odometer").optional().default(undefined),
  })
    .optional()
    .default(undefined),
  ambient: quantitySchema("ambient").required("Ambient pressure is missing"),
  warm: yup.boolean().required("Say whether the engine is warm"),
}).test(
  "mixed",
  "The boost asked for lies far below the air outside while as much or more is delivered: it is gauge pressure beside absolute. Choose the unit and kind of that column again",
  (record) => !mixes(record),
);
