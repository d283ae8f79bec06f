import * as yup from "yup";
import { needed, strictObject } from "../../input";
import { type Quantity, quantitySchema, type UnitId, unitsOf } from "../../units";
import { durationField, type InstrumentUse, instrumentField } from "../fields";

/** From the vacuum's source to what it moves; each link is read only while all before it are good. */
export const LINKS = ["supply", "control", "outlet", "diaphragm", "shaft", "movement", "plate"] as const;
export type LinkId = (typeof LINKS)[number];
export const LINK_NAMES: Record<LinkId, string> = {
  supply: "Vacuum at the solenoid's inlet",
  control: "Voltage across the solenoid, commanded",
  outlet: "Vacuum at its outlet, commanded",
  diaphragm: "Diaphragm and its pipe hold",
  shaft: "Shaft free by hand",
  movement: "Moves on command",
  plate: "Flap plates whole",
};

/** Whose vacuum the device is tried on. */
export const SOURCES = ["engine", "reservoir", "pump"] as const;
export type VacuumSource = (typeof SOURCES)[number];
export const SOURCE_NAMES: Readonly<Record<VacuumSource, string>> = {
  engine: "Engine running",
  reservoir: "Reservoir, engine off",
  pump: "Hand pump at the solenoid",
};

/** A vacuum-worked device, link by link. */
export interface ChainRecord {
  readonly device: string;
  /** The engine's, where nobody said otherwise */
  readonly source?: VacuumSource;
  readonly links: {
    readonly supply?: Quantity;
    readonly battery?: Quantity;
    readonly control?: Quantity;
    /** The solenoid unplugged and fed 12 V: whether what it works moves */
    readonly fed?: boolean;
    readonly outlet?: Quantity;
    readonly diaphragm?: { readonly start: number; readonly end: number; readonly seconds: number; readonly unit: UnitId };
    readonly shaft?: boolean;
    readonly movement?: boolean;
    readonly plate?: boolean;
  };
  readonly instrument: InstrumentUse;
}

export const chainSchema = strictObject({
  device: needed("The device", "Name the device", 60),
  source: yup.string().oneOf(SOURCES, "Say whose vacuum it was tried on").optional(),
  links: strictObject<ChainRecord["links"]>({
    supply: quantitySchema("vacuum").optional().default(undefined),
    battery: quantitySchema("voltage").optional().default(undefined),
    control: quantitySchema("voltage").optional().default(undefined),
    fed: yup.boolean().optional(),
    outlet: quantitySchema("vacuum").optional().default(undefined),
    diaphragm: strictObject({
      start: yup.number().moreThan(0, "Nothing was pumped on").required("Type the vacuum at the start"),
      end: yup.number().min(0).required("Type the vacuum at the end"),
      seconds: durationField("The time"),
      unit: yup.mixed<UnitId>().oneOf(unitsOf("pressure")).required(),
    })
      .optional()
      .default(undefined),
    shaft: yup.boolean().optional(),
    movement: yup.boolean().optional(),
    plate: yup.boolean().optional(),
  })
    .test(
      "battery",
      "Measure the battery with the voltage across the solenoid: one is held against the other",
      (links) => links?.control === undefined || links.battery !== undefined,
    )
    .required(),
  instrument: instrumentField("pressure").required(),
});
