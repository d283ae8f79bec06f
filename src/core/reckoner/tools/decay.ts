import * as yup from "yup";
import { samplesAgain } from "../../checks/samples";
import { fields, list, oneOf, plain, type RecordOf } from "../../form";
import { fitDecay } from "../../gas/decay";
import { BadInput } from "../../input";
import { fromSi, parseNumber, toSi, UNITS, type UnitId, unitsOf } from "../../units";
import { air, reading, seconds, toolForm } from "../fields";
import type { Letter, Tool } from "../tool";

const line = (text: string): readonly [number, number] => {
  const parts = text.trim().split(/[\s;]+/);
  const [t, p] = parts.map((part) => parseNumber(part));
  if (parts.length !== 2 || !t?.ok || !p?.ok) throw new BadInput(`"${text}": type seconds and pressure, as 30 9.2`, "samples");
  return [t.value, p.value];
};

type Sample = readonly [seconds: number, pressure: number];
const decayFields = fields({
  unit: oneOf<UnitId>(unitsOf("pressure"), "The unit", { label: "Read in", list: true, defaultValue: "inH2O" }).asked({
    options: (["inH2O", "mbar", "kPa", "psi", "Pa"] as const).map((u) => [u, `${u} gauge`] as const),
  }),
  samples: list<Sample, unknown>(plain<Sample>(yup.tuple([yup.number().required(), yup.number().required()])), {
    label: "Seconds and pressure after shut-off, a reading a line",
    example: "0 10\n30 9.2\n60 8.4\n90 7.7",
    min: [4, "Type at least four readings, a line each"],
    max: [2000, "At most 2,000 readings"],
    missing: "Type the readings, a line each",
    lines: { read: line, write: ([t, p]) => `${t} ${p}` },
  }),
  volume: reading("Gas volume", "the gas volume", "volume", ["L", "gal"], "30"),
  held: seconds("Held before it was shut off, s", "how long it was held before", {
    example: "120",
    defaultValue: "120",
    least: [0, "A hold is not negative"],
  }),
  ...air,
});
type Decay = RecordOf<typeof decayFields>;

/** The equation of a shut vessel, and where it comes from. */
export const DECAY_PAPER = {
  formula: "dp/dt = −γ·R·T·ṁ/V − p·(T − T_w)/(T·τ);  √p falls about linearly: slope → CdA/V",
  symbols: [
    ["p, T", "pressure and temperature of the gas", "Pa, K"],
    ["ṁ", "flow through the hole, compressible", "kg/s"],
    ["V", "gas volume", "m³"],
    ["T_w, τ", "temperature and time constant of the walls", "K, s"],
  ] as readonly Letter[],
  source: "Energy and mass balance of an ideal gas with wall exchange (Çengel & Boles)",
};

/** A fall after shut-off, as a hole. */
export const decayTool: Tool<Decay> = {
  id: "decay",
  name: "Decay after shut-off",
  aim: "The hole that a falling pressure goes through, with what the test could have seen",
  form: toolForm(decayFields),
  ...DECAY_PAPER,
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
