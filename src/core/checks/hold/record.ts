import * as yup from "yup";
import { strictObject } from "../../input";
import { type Quantity, quantitySchema, type UnitId, unitsOf } from "../../units";
import { type InstrumentUse, instrumentField, jointField, oneOfField, samplesField } from "../fields";

export const HOLD_PARTS = ["actuator", "line", "reservoir", "check-valve"] as const;
export type HoldPart = (typeof HOLD_PARTS)[number];
export const HOLD_PART_NAMES: Record<HoldPart, string> = {
  actuator: "Actuator",
  line: "Line or hose",
  reservoir: "Reservoir",
  "check-valve": "Check valve",
};

/** Hand pump on an actuator, line, reservoir or check valve. */
export interface HoldRecord {
  readonly joint: string;
  readonly part: HoldPart;
  /** Strokes until it began to move; absent when it has nothing to move */
  readonly strokes?: number;
  /** Whether it moved at all under vacuum */
  readonly moved?: boolean;
  /** Whether its lever moves freely by hand */
  readonly freeByHand?: boolean;
  readonly unit: UnitId;
  /** [s, vacuum in `unit`], left alone */
  readonly still: readonly (readonly [number, number])[];
  /** The same while the pipe ends were wiggled */
  readonly wiggled: readonly (readonly [number, number])[];
  /** Gas space between pump and part: with it a loss is a hole */
  readonly volume?: Quantity;
  readonly instrument: InstrumentUse;
}

export const holdSchema = strictObject({
  joint: jointField,
  part: oneOfField("The part", HOLD_PARTS),
  strokes: yup.number().integer("Strokes are a whole number").min(1).max(200).optional(),
  moved: yup.boolean().optional(),
  freeByHand: yup.boolean().optional(),
  unit: yup.mixed<UnitId>().oneOf(unitsOf("pressure")).required(),
  still: samplesField.min(2, "Write the vacuum down at the start and at the end").required(),
  wiggled: samplesField.required(),
  volume: quantitySchema("trapped").optional().default(undefined),
  instrument: instrumentField("pressure").required(),
});
