import { fields, type RecordOf } from "../../form";
import { STANDARD_PRESSURE, STANDARD_TEMPERATURE } from "../../gas/air";
import { fillHeating, settleTimeConstant, smokeArrivalTime } from "../../gas/vessel";
import { fromSi, toSi } from "../../units";
import { air, reading, toolForm } from "../fields";
import type { Tool } from "../tool";

const fillFields = fields({
  volume: reading("Gas volume", "the volume that is filled", "volume", ["L", "gal"], "30"),
  pressure: reading(
    "Pressure it is held at, gauge",
    "the pressure it is filled to",
    "ratedPressure",
    ["inH2O", "psi", "mbar", "kPa"],
    "13",
  ),
  flow: reading("Most that the machine gives", "what the machine gives", "smokeFlow", ["L/min", "SCFH"], "12"),
  ...air,
});
type Fill = RecordOf<typeof fillFields>;

/** How long until a fill can be read, and until smoke is through it. */
export const fillTool: Tool<Fill> = {
  id: "fill",
  name: "Fill and settle",
  aim: "How long until the ball can be read, and until smoke has swept the circuit",
  form: toolForm(fillFields),
  formula: "Q = Q_n·(101325/p_amb)·(T/293.15);  τ = (V·p_set/p_amb)/Q;  arrival = V/Q;  ΔT = T·(γ − 1)/γ·p_set/p_amb",
  symbols: [
    ["τ", "settling time constant", "s"],
    ["V", "gas volume", "m³"],
    ["p_set", "pressure it is held at, gauge", "Pa"],
    ["p_amb", "ambient pressure, absolute", "Pa"],
    ["Q_n", "flow of the machine at 20 °C and 101.325 kPa", "m³/s"],
    ["Q", "the same as it is here", "m³/s"],
    ["T", "the air's temperature", "K"],
    ["ΔT", "most that the fill heats the gas", "K"],
  ],
  source: "Ideal gas in a rigid vessel, plug flow for the smoke (Çengel & Boles, unsteady-flow energy balance)",
  valid: "A path with a way out: a dead end never fills with smoke, open its far end",
  reckon({ volume, pressure, flow, ambient, temperature }) {
    // A litre at standard conditions is more than one in thin or warm air.
    const q = (toSi(flow) * STANDARD_PRESSURE * toSi(temperature)) / (toSi(ambient) * STANDARD_TEMPERATURE);
    if (!(q > 0)) throw new RangeError("A machine that gives nothing fills nothing");
    const tau = settleTimeConstant({
      volume: toSi(volume),
      setPressure: toSi(pressure),
      ambient: toSi(ambient),
      maxFlow: q,
    });
    return {
      rows: [
        { name: "Settling time constant", value: { value: tau, unit: "s" } },
        { name: "Settled to 5 %, after three of them", value: { value: 3 * tau, unit: "s" } },
        { name: "Smoke has swept it", value: { value: smokeArrivalTime(toSi(volume), q), unit: "s" } },
        {
          name: "The fill heats its gas by, at most",
          value: { value: fillHeating(toSi(temperature), toSi(pressure), toSi(ambient)), unit: "K" },
        },
        { name: "Air it takes", value: fromSi((toSi(volume) * toSi(pressure)) / toSi(ambient), "L") },
      ],
      notes: ["Hold the pressure a minute, better two, before it is shut off: gas that still cools looks like a leak"],
    };
  },
};
