import * as yup from "yup";
import { samplesAgain } from "../../checks/samples";
import { formOf } from "../../form";
import { fitDecay } from "../../gas/decay";
import { BadInput, strictObject } from "../../input";
import { fromSi, parseNumber, type Quantity, toSi, UNITS, type UnitId, unitsOf } from "../../units";
import { type Air, air, airField, ambientField, needs, reading, seconds } from "../fields";
import type { Tool } from "../tool";

interface Decay extends Air {
  readonly unit: UnitId;
  readonly samples: readonly (readonly [seconds: number, pressure: number])[];
  readonly volume: Quantity;
  readonly held: number;
}

const line = (text: string): readonly [number, number] => {
  const parts = text.trim().split(/[\s;]+/);
  const [t, p] = parts.map((part) => parseNumber(part));
  if (parts.length !== 2 || !t?.ok || !p?.ok) throw new BadInput(`"${text}": type seconds and pressure, as 30 9.2`, "samples");
  return [t.value, p.value];
};

/** A fall after shut-off, as a hole. */
export const decayTool: Tool<Decay> = {
  id: "decay",
  name: "Decay after shut-off",
  aim: "The hole that a falling pressure goes through, with what the test could have seen",
  form: formOf<Decay, undefined>()({
    schema: strictObject({
      unit: yup.mixed<UnitId>().oneOf(unitsOf("pressure"), "The unit is one of pressure").required(),
      samples: yup
        .array()
        .of(yup.tuple([yup.number().required(), yup.number().required()]).required())
        .min(4, "Type at least four readings, a line each")
        .max(2000, "At most 2,000 readings")
        .required("Type the readings, a line each"),
      volume: needs("volume", "the gas volume"),
      held: seconds("how long it was held before").min(0, "A hold is not negative"),
      ...air,
    }),
    fields: {
      unit: {
        type: "choice",
        list: true,
        label: "Read in",
        options: (["inH2O", "mbar", "kPa", "psi", "Pa"] as const).map((u) => [u, `${u} gauge`] as const),
        holds: () => "inH2O",
      },
      samples: {
        type: "lines",
        label: "Seconds and pressure after shut-off, a reading a line",
        read: line,
        write: ([t, p]: readonly [number, number]) => `${t} ${p}`,
        example: "0 10\n30 9.2\n60 8.4\n90 7.7",
      },
      volume: reading("Gas volume", "volume", ["L", "gal"], "30"),
      held: { type: "number", label: "Held before it was shut off, s", bare: "s", example: "120", holds: () => "120" },
      ambient: ambientField,
      temperature: airField,
    },
  }),
  formula: "dp/dt = −γ·R·T·ṁ/V − p·(T − T_w)/(T·τ);  √p falls about linearly: slope → CdA/V",
  symbols: [
    ["p, T", "pressure and temperature of the gas", "Pa, K"],
    ["ṁ", "flow through the hole, compressible", "kg/s"],
    ["V", "gas volume", "m³"],
    ["T_w, τ", "temperature and time constant of the walls", "K, s"],
  ],
  source: "Energy and mass balance of an ideal gas with wall exchange (Çengel & Boles)",
  valid: "A rigid volume, held a minute or more before, drift below 0.3 °C; petrol that boils lifts the pressure",
  reckon({ unit, samples, volume, held, ambient, temperature }) {
    const { scale } = UNITS[unit];
    const fit = fitDecay({
      times: samples.map(([t]) => t),
      pressures: samples.map(([, p]) => p * scale),
      volume: toSi(volume),
      ambient: toSi(ambient),
      temperature: toSi(temperature),
      held,
    });
    return {
      rows: [
        {
          name: "Hole, sharp-edged (Cd 0.61)",
          value: fromSi(fit.diameter, "mm"),
          low: 1000 * fit.low,
          high: 1000 * fit.high,
        },
        { name: "Smallest hole it could have seen", value: fromSi(fit.smallestVisible, "mm") },
      ],
      notes: fit.reasons,
      fall: {
        unit: `${unit} gauge`,
        read: samples,
        fitted: fit.fitted.times.map((t, i): [number, number] => [t, (fit.fitted.pressures[i] as number) / scale]),
      },
    };
  },
  into: {
    check: "decay",
    draft: ({ unit, samples, held }) => ({
      unit,
      held: String(held),
      alone: samplesAgain(samples, { kind: "typed" }),
    }),
  },
};
