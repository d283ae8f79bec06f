import { type Field, formOf, number, quantity } from "../form";
import type { BandId, Quantity, UnitId } from "../units";

/** The form of a tool: nothing is known beforehand. */
export const toolForm = formOf<undefined>();

/** A reading that a tool asks for. @param what it is, after "Type". */
export const reading = (
  label: string,
  what: string,
  band: BandId,
  units: readonly [UnitId, ...UnitId[]],
  example: string,
  defaultValue?: string,
): Field<Quantity> =>
  quantity(band, {
    label,
    units,
    example,
    missing: `Type ${what}`,
    ...(defaultValue === undefined ? {} : { defaultValue }),
  });

/** Air outside, and its temperature: sea level and a bay's air where nobody says. */
export const air = {
  ambient: reading(
    "Ambient pressure, absolute",
    "the ambient pressure",
    "ambient",
    ["hPa", "kPa", "inHg", "psi"],
    "1006",
    "1013.25 hPa",
  ),
  temperature: reading("Air temperature", "the air's temperature", "airTemperature", ["°C", "°F"], "20", "20 °C"),
};

/** A time, s. @param what it is, after "Type". */
export const seconds = (
  label: string,
  what: string,
  more: { readonly example: string; readonly defaultValue?: string; readonly least?: readonly [number, string] },
): Field<number> =>
  number({
    name: label,
    label,
    bare: "s",
    example: more.example,
    ...(more.defaultValue ? { defaultValue: more.defaultValue } : {}),
    wrong: `Type ${what}, in s`,
    min: more.least ?? [1, `${what} is a second at least`],
    max: [86_400, `${what} is longer than anybody watches`],
    missing: `Type ${what}, in s`,
  });
