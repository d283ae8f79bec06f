import { choice, fields, group, list, number, quantity, type RecordOf, tick } from "../../form";
import { evapSetup } from "../evap-fields";
import { joint } from "../fields";
import { smokeRun } from "../smoke/fields";

const ball = (name: string) => number({ name, min: [0, `${name} cannot be negative`], max: [1e5, `${name} is above any scale`] });

/** A joint capped off while smoke flows: what the ball showed with each side shut. In the run's flow unit. */
const capOff = group({
  joint: joint(),
  before: ball("The ball before capping"),
  /** Ball with the hose side capped, and with the port side capped */
  hoseSide: ball("The ball, hose side capped").optional(),
  portSide: ball("The ball, port side capped").optional(),
  /** The blank itself was shown not to weep */
  blankProved: tick(),
});
export type CapOff = (typeof capOff)["value"];

/** A smoke run of the EVAP system. Its machine's proof is taken at the regulated output. */
export const evapSmokeFields = fields({
  ...smokeRun,
  ...evapSetup,
  /** Pressure the machine was shown regulated to, hose clamped; absent where its own rating lies below the ceiling */
  regulated: quantity("ratedPressure").optional(),
  gas: choice({ inert: "Inert gas", air: "Air" }, { name: "The gas" }),
  capOffs: list(capOff, { max: 30 }),
});
export type EvapSmokeRun = RecordOf<typeof evapSmokeFields>;
