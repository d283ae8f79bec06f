import * as yup from "yup";
import { strictObject } from "../../input";
import { type Quantity, quantitySchema } from "../../units";
import { type InstrumentUse, instrumentField, jointField, oneOfField } from "../fields";
import { type PinId, pinsOf, WIRINGS, type Wiring } from "./pins";

export interface PinReading {
  readonly pin: PinId;
  readonly voltage?: Quantity;
  readonly lamp?: "bright" | "dim" | "dark";
}

/** A load's circuit, pin by pin. */
export interface CircuitRecord {
  readonly joint: string;
  readonly wiring: Wiring;
  readonly switched: "ground" | "feed";
  /** Battery terminals, in the state the circuit was measured in */
  readonly battery: Quantity;
  readonly engineRunning: boolean;
  /** This circuit is live only with the engine running */
  readonly needsEngine: boolean;
  readonly readings: readonly PinReading[];
  readonly pierced: boolean;
  readonly instrument: InstrumentUse;
}

export const PIN_IDS = [
  ...new Set(WIRINGS.flatMap((w) => (["ground", "feed"] as const).flatMap((s) => pinsOf(w, s).map((p) => p.id)))),
];

export const circuitSchema = strictObject({
  joint: jointField,
  wiring: oneOfField("The wiring", WIRINGS),
  switched: oneOfField("The switched side", ["ground", "feed"] as const),
  battery: quantitySchema("voltage").required("Measure the battery first"),
  engineRunning: yup.boolean().required(),
  needsEngine: yup.boolean().required(),
  readings: yup
    .array()
    .of(
      strictObject<PinReading>({
        pin: oneOfField("The pin", PIN_IDS),
        voltage: quantitySchema("voltage").optional().default(undefined),
        lamp: yup.mixed<"bright" | "dim" | "dark">().oneOf(["bright", "dim", "dark"]).optional(),
      })
        .test("one", "A pin has a voltage or a lamp", (r) => (r?.voltage === undefined) !== (r?.lamp === undefined))
        .required(),
    )
    .min(1, "Measure at least the first pin")
    .max(20)
    .required(),
  pierced: yup.boolean().required(),
  instrument: instrumentField("voltage").required(),
});
