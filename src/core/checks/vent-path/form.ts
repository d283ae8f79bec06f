import { AIR_ELSEWHERE, airOf, checkForm } from "../known";
import { VENT_PART_NAMES, VENT_PARTS, type VentPathRecord, ventPathSchema } from "./record";

/** The vent path from outside in: each part blown through by itself. */
export const ventPathForm = checkForm<VentPathRecord>()({
  schema: ventPathSchema,
  fields: {
    nozzle: {
      type: "choice",
      label: "At the pump",
      options: [
        ["fills", "It fills"],
        ["clicks-off", "The nozzle clicks off"],
        ["not-tried", "Not tried"],
      ],
      holds: () => "not-tried",
    },
    parts: {
      type: "rows",
      label: "Blown through, from outside in",
      holds: () => VENT_PARTS.map((part) => ({ part })),
      blank: {},
      needed: ({ holds }) =>
        holds("nozzle") === "not-tried" ? "Blow through the first part, or say how it fills at the pump" : undefined,
      fields: {
        part: { type: "taken", label: "Part" },
        flow: {
          type: "quantity",
          label: ({ holds }) => `Flow through ${VENT_PART_NAMES[holds("part") as (typeof VENT_PARTS)[number]]}`,
          band: "blownFlow",
          unit: "L/min",
          units: ["L/min", "cc/min", "SCFH"],
          example: "10",
        },
        back: {
          type: "quantity",
          label: "Back pressure, gauge",
          band: "tankPressure",
          unit: "Pa",
          units: ["Pa", "inH2O", "mbar"],
          example: "50",
        },
      },
    },
  },
  also: (_, known) => airOf(known, "temperature"),
  keeps: ["ambient", "temperature"],
  elsewhere: AIR_ELSEWHERE,
  laidOut: (record) => ({
    ...record,
    parts: VENT_PARTS.map((part) => record.parts.find((p) => p.part === part) ?? { part }),
  }),
});
