import { choice, fields, group, list, quantity, type RecordOf } from "../../form";
import { checkForm } from "../check-form";
import { airTemperature, ambient } from "../fields";

/** The vent path from outside in; each part is blown through by itself. */
export const VENT_PART_NAMES = {
  "vent-filter": "Vent filter and hose",
  "vent-valve": "Vent valve, at rest",
  "canister-joint": "Canister",
  "fill-limit-valve": "Vapour line and fill-limit valve",
} as const;
export type VentPart = keyof typeof VENT_PART_NAMES;
export const VENT_PARTS = Object.keys(VENT_PART_NAMES) as VentPart[];

/** Flow blown through a part, and the back pressure it built up. */
const part = group({
  part: choice(VENT_PART_NAMES, { name: "The part" }).taken("Part"),
  flow: quantity(
    { dimension: "volume-flow" },
    {
      label: "Flow",
      units: ["L/min", "cc/min", "SCFH"],
      example: "10",
      missing: "Type the flow blown through it",
      column: "flow, {part}",
    },
  ).asked({ band: "blownFlow" }),
  back: quantity("tankPressure", {
    label: "Back pressure, gauge",
    units: ["Pa", "inH2O", "mbar"],
    example: "50",
    missing: "Type the back pressure it built up",
    column: "back pressure, {part}",
  }),
});

/** The vent path from outside in: each part blown through by itself. */
export const ventPathFields = fields({
  /** How the tank takes fuel at the pump */
  nozzle: choice(
    { fills: "It fills", "clicks-off": "The nozzle clicks off", "not-tried": "Not tried" },
    { label: "At the pump", defaultValue: "not-tried" },
  ),
  parts: list(part, { label: "Blown through, from outside in", blank: {}, max: VENT_PARTS.length }).rule(
    "once",
    "Each part is blown through once",
    (parts) => new Set((parts as readonly { part?: unknown }[]).map((p) => p?.part)).size === parts.length,
  ),
  ambient: ambient(),
  temperature: airTemperature(),
});
export type VentPathRecord = RecordOf<typeof ventPathFields>;

export const ventPathForm = checkForm(ventPathFields, {
  ask: {
    parts: {
      defaultValue: () => VENT_PARTS.map((id) => ({ part: id })),
      needed: ({ value }) =>
        value("nozzle") === "not-tried" ? "Blow through the first part, or say how it fills at the pump" : undefined,
      rows: { flow: { label: ({ value }) => `Flow through ${VENT_PART_NAMES[value("part") as VentPart]}` } },
    },
  },
  laidOut: { parts: ({ parts }) => VENT_PARTS.map((id) => parts.find((p) => p.part === id) ?? { part: id }) },
});
