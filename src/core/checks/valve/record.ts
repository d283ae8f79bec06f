import * as yup from "yup";
import { strictObject } from "../../input";
import { type Quantity, quantitySchema, type UnitId, unitsOf } from "../../units";
import { durationField, type InstrumentUse, instrumentField, jointField, oneOfField } from "../fields";

export const POWERS = ["scan-tool", "loom", "12v"] as const;
export type Power = (typeof POWERS)[number];
export const POWER_NAMES: Record<Power, string> = {
  "scan-tool": "Scan-tool command",
  loom: "The car's own loom, engine running",
  "12v": "12 V from a fused lead, unplugged",
};

/** One state of a valve: what was put on it, what was left, after how long. */
export interface ValveState {
  readonly start: number;
  readonly end: number;
  readonly seconds: number;
}

/** A valve tried in both its states. */
export interface ValveRecord {
  readonly joint: string;
  readonly rests: "closed" | "open";
  readonly power: Power;
  /** Its plug was off the car's loom */
  readonly unplugged: boolean;
  /** Absent: nobody said */
  readonly clicked?: boolean;
  /** The fitted part, or the new one on the bench before it is fitted */
  readonly part: "fitted" | "new";
  readonly temperature: "cold" | "warm";
  /** Of vacuum or pressure, whichever was put on */
  readonly unit: UnitId;
  /** One of the two may be left out where the other decides alone */
  readonly rest?: ValveState;
  readonly energised?: ValveState;
  /** A solenoid's third port: whether what stood at its outlet is let go when it is released */
  readonly vents?: boolean;
  /** Commanded again and again: how many times it shut, passed and released, cold and hot */
  readonly cycles?: readonly ValveCycles[];
  /** Gas space between pump and part: with it a loss is a hole */
  readonly volume?: Quantity;
  readonly instrument: InstrumentUse;
}

/** A valve commanded repeatedly at one temperature. */
export interface ValveCycles {
  readonly temperature: "cold" | "hot";
  readonly commanded: number;
  readonly shut: number;
  readonly passed: number;
  readonly released: number;
}

const times = (name: string) =>
  yup
    .number()
    .integer(`${name}: a whole number`)
    .min(0, `${name} cannot be negative`)
    .max(1000)
    .required(`${name}: say how many times`);

const state = (name: string) =>
  strictObject({
    start: yup
      .number()
      .typeError(`${name}: the start is a number`)
      .moreThan(0, `${name}: nothing was put on it`)
      .required(`${name}: type what was put on it`),
    end: yup.number().typeError(`${name}: the end is a number`).min(0).required(`${name}: type what was left`),
    seconds: durationField(`${name}: the time`),
  });

export const valveSchema = strictObject<ValveRecord>({
  joint: jointField,
  rests: oneOfField("At rest", ["closed", "open"] as const),
  power: oneOfField("Power", POWERS),
  unplugged: yup.boolean().required(),
  clicked: yup.boolean().optional(),
  part: oneOfField("The part", ["fitted", "new"] as const),
  temperature: oneOfField("Its temperature", ["cold", "warm"] as const),
  unit: yup.mixed<UnitId>().oneOf(unitsOf("pressure")).required(),
  rest: state("At rest").optional().default(undefined),
  energised: state("Energised").optional().default(undefined),
  vents: yup.boolean().optional(),
  cycles: yup
    .array()
    .of(
      strictObject<ValveCycles>({
        temperature: oneOfField("The temperature", ["cold", "hot"] as const),
        commanded: times("Commanded").min(1, "Command it at least once"),
        shut: times("Shut"),
        passed: times("Passed"),
        released: times("Released"),
      })
        .test("most", "It cannot have answered more often than it was commanded", (c) =>
          [c?.shut, c?.passed, c?.released].every((n) => (n ?? 0) <= (c?.commanded ?? 0)),
        )
        .required(),
    )
    .max(4)
    .optional()
    .default(undefined),
  volume: quantitySchema("trapped").optional().default(undefined),
  instrument: instrumentField("pressure").required(),
}).test(
  "rest.start",
  "Read at least one of its states: what was put on it, what was left, after how long",
  (record) => record?.rest !== undefined || record?.energised !== undefined,
);
