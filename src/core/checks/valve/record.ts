import * as yup from "yup";
import { strictObject } from "../../input";
import { type UnitId, unitsOf } from "../../units";
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
  readonly clicked: boolean;
  /** The fitted part, or the new one on the bench before it is fitted */
  readonly part: "fitted" | "new";
  readonly temperature: "cold" | "warm";
  /** Of vacuum or pressure, whichever was put on */
  readonly unit: UnitId;
  readonly rest: ValveState;
  readonly energised: ValveState;
  readonly instrument: InstrumentUse;
}

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

export const valveSchema = strictObject({
  joint: jointField,
  rests: oneOfField("At rest", ["closed", "open"] as const),
  power: oneOfField("Power", POWERS),
  unplugged: yup.boolean().required(),
  clicked: yup.boolean().required(),
  part: oneOfField("The part", ["fitted", "new"] as const),
  temperature: oneOfField("Its temperature", ["cold", "warm"] as const),
  unit: yup.mixed<UnitId>().oneOf(unitsOf("pressure")).required(),
  rest: state("At rest").required(),
  energised: state("Energised").required(),
  instrument: instrumentField("pressure").required(),
});
