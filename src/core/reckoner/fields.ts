import * as yup from "yup";
import type { QuantityField } from "../form";
import { type BandId, type Quantity, quantitySchema, type UnitId } from "../units";

/** A reading that a tool asks for: as a field of its form, and as its schema takes it. */
export const reading = (
  label: string,
  band: BandId,
  units: readonly [UnitId, ...UnitId[]],
  example: string,
  holds?: string,
): QuantityField<undefined> => ({
  type: "quantity",
  label,
  band,
  unit: units[0],
  units,
  example,
  ...(holds === undefined ? {} : { holds: () => holds }),
});

/** Air outside, and its temperature: sea level and a bay's air where nobody says. */
export const ambientField = reading(
  "Ambient pressure, absolute",
  "ambient",
  ["hPa", "kPa", "inHg", "psi"],
  "1006",
  "1013.25 hPa",
);
export const airField = reading("Air temperature", "airTemperature", ["°C", "°F"], "20", "20 °C");

const word = (text: string) => `Type ${text}`;
/** What a tool needs, and what it may go without. */
export const needs = (band: BandId, what: string) => quantitySchema(band).required(word(what));
export const may = (band: BandId) => quantitySchema(band).optional().default(undefined);
export const air = {
  ambient: needs("ambient", "the ambient pressure"),
  temperature: needs("airTemperature", "the air's temperature"),
};
export interface Air {
  readonly ambient: Quantity;
  readonly temperature: Quantity;
}

export const seconds = (what: string, most = 86_400) =>
  yup
    .number()
    .typeError(`${word(what)}, in s`)
    .min(1, `${what} is a second at least`)
    .max(most, `${what} is longer than anybody watches`)
    .required(`${word(what)}, in s`);
