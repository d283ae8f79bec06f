import * as yup from "yup";
import { strictObject } from "../../input";
import { type Quantity, quantitySchema, type UnitId, unitsOf } from "../../units";
import { type EvapSetup, evapSetupFields } from "../evap-fields";
import { durationField, type InstrumentUse, instrumentField, type RecordSource, samplesField, sourceField } from "../fields";

/** A shut-off EVAP system watched while its pressure falls, with or without a known hole opened for a second run. */
export interface DecayRecord extends EvapSetup {
  readonly source: RecordSource;
  /** Unit of the gauge pressures */
  readonly unit: UnitId;
  /** s at pressure before the supply was shut; absent when nobody timed it */
  readonly held?: number;
  /** [s since shut-off, gauge pressure] */
  readonly samples: readonly (readonly [number, number])[];
  readonly reference?: { readonly diameter: Quantity; readonly samples: readonly (readonly [number, number])[] };
  /** The shut system before it was pushed: gauge pressure at the start and end of so many seconds */
  readonly vapourRise?: { readonly start: number; readonly end: number; readonly seconds: number };
  /** Gas space, where it is known better than by fuel level */
  readonly volume?: Quantity;
  readonly instrument: InstrumentUse;
}

const FEWEST = 4;
const samples = samplesField.min(FEWEST, `A decay needs at least ${FEWEST} readings; note the pressure every few seconds`);

export const decaySchema = strictObject({
  ...evapSetupFields,
  source: sourceField.required(),
  unit: yup.mixed<UnitId>().oneOf(unitsOf("pressure")).required(),
  held: durationField("The hold").optional(),
  samples: samples.required(),
  reference: strictObject({
    diameter: quantitySchema("hole").required("State the reference hole"),
    samples: samples.required(),
  })
    .optional()
    .default(undefined),
  vapourRise: strictObject({
    start: yup.number().min(-1e5).max(1e6).required("Type the pressure at the start"),
    end: yup.number().min(-1e5).max(1e6).required("Type the pressure at the end"),
    seconds: durationField("The time"),
  })
    .optional()
    .default(undefined),
  volume: quantitySchema("volume").optional().default(undefined),
  instrument: instrumentField("pressure").required(),
});
