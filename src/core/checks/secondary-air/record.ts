import * as yup from "yup";
import { strictObject } from "../../input";
import { durationField, jointField, jointsField, oneOfField, percentField } from "../fields";

/** How the pump is made to run: three schools. */
export const RUN_BY = {
  "scan-tool": "Commanded by the scan tool",
  "relay-in": "Relay left in, engine running, its coil grounded through a test lamp",
  "fused-lead": "Fused lead at the unplugged relay's socket",
} as const;
export type RunBy = keyof typeof RUN_BY;

export const OPENED_BY = { "hand-vacuum": "Hand pump on the valve", command: "Opened by the ECU" } as const;
export type OpenedBy = keyof typeof OPENED_BY;

export const OXYGEN = { lean: "Went lean", "no-change": "No change", "not-read": "Not read" } as const;
export type Oxygen = keyof typeof OXYGEN;

export const WHEN_SHUT = { quiet: "Quiet and cool", pulses: "Pulses or heat at its hose", "not-felt": "Not felt yet" } as const;
export type WhenShut = keyof typeof WHEN_SHUT;

/** Secondary air of one bank: the pump made to run, its joints soaped, the switching valve opened and shut. */
export interface SecondaryAirRecord {
  /** The switching valve */
  readonly joint: string;
  readonly runBy: RunBy;
  /** The pump ran: heard, and air felt at its hose */
  readonly pumped: boolean;
  /** s that the command lasts before the tool lets go */
  readonly window?: number;
  /** Key cycle or engine start since the last command */
  readonly rearmed: boolean;
  readonly engineRunning: boolean;
  readonly openedBy: OpenedBy;
  readonly oxygen: Oxygen;
  /** s from opening the valve, or from the command, to the reaction or to the end of watching */
  readonly watched?: number;
  /** s from the command to the oxygen sensor's answer, where the command's clock ran */
  readonly answeredAfter?: number;
  /** Short-term trim's change, percent, where it was live */
  readonly trim?: number;
  /** Every joint, the pump's body and its seams were soaped while it ran */
  readonly soaped: boolean;
  readonly bubbles: readonly string[];
  readonly whenShut: WhenShut;
}

const idsOf = <T extends string>(of: Readonly<Record<T, string>>) => Object.keys(of) as T[];

export const secondaryAirSchema = strictObject({
  joint: jointField.required("Say which switching valve"),
  runBy: oneOfField("How the pump was run", idsOf(RUN_BY)),
  pumped: yup.boolean().required("Say whether the pump ran"),
  window: durationField("The command's time").optional().notRequired(),
  rearmed: yup.boolean().required(),
  engineRunning: yup.boolean().required("Say whether the engine ran"),
  openedBy: oneOfField("How the valve was opened", idsOf(OPENED_BY)),
  oxygen: oneOfField("The oxygen sensor", idsOf(OXYGEN)),
  watched: durationField("The time watched").optional().notRequired(),
  answeredAfter: durationField("The time since the command").optional().notRequired(),
  trim: percentField("The trim's change", -60, 60).optional().notRequired(),
  soaped: yup.boolean().required(),
  bubbles: jointsField,
  whenShut: oneOfField("The shut valve", idsOf(WHEN_SHUT)),
}).test("watched", "Say how many seconds the oxygen sensor was watched", (r) => {
  const { oxygen, watched } = (r ?? {}) as { oxygen?: unknown; watched?: unknown };
  return oxygen === "not-read" || oxygen === undefined || watched !== undefined;
});
