import * as yup from "yup";
import { strictObject } from "../../input";
import { isQuantity, type Quantity, quantitySchema, toSi, type UnitId, unitsOf } from "../../units";
import { type InstrumentUse, instrumentField, jointField, jointsField, oneOfField, samplesField } from "../fields";

export const HOLD_PARTS = ["actuator", "line", "reservoir", "check-valve"] as const;
export type HoldPart = (typeof HOLD_PARTS)[number];
export const HOLD_PART_NAMES: Record<HoldPart, string> = {
  actuator: "Actuator",
  line: "Line or hose",
  reservoir: "Reservoir",
  "check-valve": "Check valve",
};

export const REACHES = { full: "All the way", short: "Not all the way" } as const;
export type Reach = keyof typeof REACHES;
export const BACKS = { free: "At once, to its stop", slow: "Slowly", sticks: "Sticks on the way" } as const;
export type Back = keyof typeof BACKS;
export const VENTINGS = { free: "Free, filter clean", blocked: "Blocked, or its filter full" } as const;
export type Venting = keyof typeof VENTINGS;

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
  /** Vacuum that it starts to move at, and that it is fully drawn in at */
  readonly startsAt?: Quantity;
  readonly fullAt?: Quantity;
  /** Whether it came all the way, and how it went back */
  readonly reach?: Reach;
  readonly back?: Back;
  /** A solenoid's venting port and its filter, where one works it */
  readonly venting?: Venting;
  /** Branches that were shut off from a shared supply while it was held */
  readonly isolated?: readonly string[];
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
  startsAt: quantitySchema("vacuum").optional().default(undefined),
  fullAt: quantitySchema("vacuum").optional().default(undefined),
  reach: yup
    .string()
    .oneOf(Object.keys(REACHES) as Reach[])
    .optional(),
  back: yup
    .string()
    .oneOf(Object.keys(BACKS) as Back[])
    .optional(),
  venting: yup
    .string()
    .oneOf(Object.keys(VENTINGS) as Venting[])
    .optional(),
  isolated: jointsField.optional().default(undefined),
  unit: yup.mixed<UnitId>().oneOf(unitsOf("pressure")).required(),
  still: samplesField.min(2, "Write the vacuum down at the start and at the end").required(),
  wiggled: samplesField.required(),
  volume: quantitySchema("trapped").optional().default(undefined),
  instrument: instrumentField("pressure").required(),
}).test("travel", "It cannot be fully drawn in before it starts to move: look at both readings", (r) => {
  const { startsAt, fullAt } = (r ?? {}) as { startsAt?: unknown; fullAt?: unknown };
  return !isQuantity(startsAt) || !isQuantity(fullAt) || toSi(startsAt) <= toSi(fullAt);
});
