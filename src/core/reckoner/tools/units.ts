import { fields, type RecordOf, text } from "../../form";
import { fromSi, parseNumber, parseQuantity, toSi, UNITS, type UnitId, unitsOf } from "../../units";
import { toolForm } from "../fields";
import type { Tool } from "../tool";

const unitsFields = fields({
  reading: text({
    name: "The reading",
    label: "Reading with its unit",
    example: "13 inH2O",
    max: 40,
    missing: "Type a reading with its unit, as 13 inH2O",
  }),
});
type Same = RecordOf<typeof unitsFields>;
const DIMENSIONS = ["pressure", "volume-flow", "mass-flow", "length", "temperature", "volume", "torque", "distance"] as const;

/** A reading in every unit of its kind. */
export const unitsTool: Tool<Same> = {
  id: "units",
  name: "Units side by side",
  aim: "One reading in every unit the trade mixes",
  form: toolForm(unitsFields),
  formula: "value₂ = value₁ · unit₁ / unit₂",
  symbols: [["unit", "its size in the unit of the SI", ""]],
  source: "BIPM SI brochure; conventional inch of mercury (0 °C) and of water (4 °C)",
  valid: "A volume flow counts at 20 °C and 101.325 kPa. A pressure keeps its kind: gauge, vacuum or absolute",
  reckon({ reading }) {
    // A bare number is a reading of anything.
    const tried = parseNumber(reading).ok
      ? []
      : DIMENSIONS.map((dimension) => parseQuantity(reading, { dimension, unit: unitsOf(dimension)[0] as UnitId }));
    const read = tried.find((parsed) => parsed.ok);
    if (!read?.ok)
      throw new RangeError(`"${reading}" names no unit that is known here: type it as 13 inH2O, 0.5 mm, 12 L/min or 20 °C`);
    const { kind } = read.value;
    return {
      rows: unitsOf(UNITS[read.value.unit].dimension).map((other) => ({
        name: other,
        value: { ...fromSi(toSi(read.value), other), ...(kind ? { kind } : {}) },
      })),
    };
  },
};
