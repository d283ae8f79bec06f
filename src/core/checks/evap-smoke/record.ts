import * as yup from "yup";
import { strictObject } from "../../input";
import { type Quantity, quantitySchema } from "../../units";
import { type EvapSetup, evapSetupFields } from "../evap-fields";
import { jointField, oneOfField } from "../fields";
import { type SmokeRun, smokeRunFields } from "../smoke";

/** A joint capped off while smoke flows: what the ball showed with each side shut. In the run's flow unit. */
export interface CapOff {
  readonly joint: string;
  readonly before: number;
  /** Ball with the hose side capped, and with the port side capped */
  readonly hoseSide?: number;
  readonly portSide?: number;
  /** The blank itself was shown not to weep */
  readonly blankProved: boolean;
}

/** A smoke run of the EVAP system. Its machine's proof is taken at the regulated output. */
export interface EvapSmokeRun extends SmokeRun, EvapSetup {
  /** What the machine was shown regulated to, hose clamped; absent where its own rating lies below the ceiling */
  readonly regulated?: Quantity;
  readonly gas: "inert" | "air";
  readonly capOffs: readonly CapOff[];
}

const ball = (name: string) => yup.number().typeError(`${name} is a number`).min(0, `${name} cannot be negative`).max(1e5);

export const evapSmokeSchema = strictObject({
  ...smokeRunFields,
  ...evapSetupFields,
  regulated: quantitySchema("ratedPressure").optional().default(undefined),
  gas: oneOfField("The gas", ["inert", "air"] as const),
  capOffs: yup
    .array()
    .of(
      strictObject({
        joint: jointField,
        before: ball("The ball before capping").required(),
        hoseSide: ball("The ball, hose side capped").optional(),
        portSide: ball("The ball, port side capped").optional(),
        blankProved: yup.boolean().required(),
      }).required(),
    )
    .max(30)
    .required(),
});
