import * as yup from "yup";
import { strictObject } from "../../input";
import { type Quantity, quantitySchema } from "../../units";
import { oneOfField } from "../fields";

/** The vent path from outside in; each part is blown through by itself. */
export const VENT_PARTS = ["vent-filter", "vent-valve", "canister-joint", "fill-limit-valve"] as const;
export type VentPart = (typeof VENT_PARTS)[number];
export const VENT_PART_NAMES: Record<VentPart, string> = {
  "vent-filter": "Vent filter and hose",
  "vent-valve": "Vent valve, at rest",
  "canister-joint": "Canister",
  "fill-limit-valve": "Vapour line and fill-limit valve",
};

export interface VentPathRecord {
  /** How the tank takes fuel at the pump */
  readonly nozzle: "fills" | "clicks-off" | "not-tried";
  /** Flow blown through a part, and the back pressure it built up */
  readonly parts: readonly { readonly part: VentPart; readonly flow: Quantity; readonly back: Quantity }[];
  readonly ambient: Quantity;
  readonly temperature: Quantity;
}

export const ventPathSchema = strictObject({
  nozzle: oneOfField("At the pump", ["fills", "clicks-off", "not-tried"] as const),
  parts: yup
    .array()
    .of(
      strictObject<VentPathRecord["parts"][number]>({
        part: oneOfField("The part", VENT_PARTS),
        flow: quantitySchema({ dimension: "volume-flow" }).required("Type the flow blown through it"),
        back: quantitySchema("tankPressure").required("Type the back pressure it built up"),
      }).required(),
    )
    .max(VENT_PARTS.length)
    .required()
    .test(
      "once",
      "Each part is blown through once",
      (list) => new Set((list ?? []).map((p) => p?.part)).size === (list ?? []).length,
    ),
  ambient: quantitySchema("ambient").required("Ambient pressure is missing"),
  temperature: quantitySchema("airTemperature").required("Bay temperature is missing"),
});
