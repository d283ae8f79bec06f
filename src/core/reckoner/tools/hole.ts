import { fields, type RecordOf } from "../../form";
import { massFlowOf, standardFlow } from "../../gas/air";
import { leakDiameter, orificeFlow } from "../../gas/orifice";
import { fromSi, toSi } from "../../units";
import { air, reading, toolForm } from "../fields";
import type { Letter, Reckoned, Tool } from "../tool";

const FORMULA =
  "r > r*: ṁ = Cd·A·p₁·√(2·γ/((γ − 1)·R·T₁)·(r^(2/γ) − r^((γ + 1)/γ)));  r ≤ r*: ṁ = Cd·A·p₁·√(γ/(R·T₁))·(2/(γ + 1))^((γ + 1)/(2·(γ − 1)));  r = p₂/p₁, r* = 0.528";
const SYMBOLS: readonly Letter[] = [
  ["ṁ", "mass flow", "kg/s"],
  ["Cd", "discharge coefficient, 0.61 of a sharp edge", "1"],
  ["A", "area of the hole", "m²"],
  ["p₁, p₂", "pressure before and behind it, absolute", "Pa"],
  ["T₁", "temperature before it", "K"],
  ["γ, R", "1.4 and 287.05 J/(kg·K), dry air", ""],
];
const PAPER = {
  formula: FORMULA,
  symbols: SYMBOLS,
  source: "Compressible orifice flow, isentropic to the throat (Shapiro 1953; ISO 9300 for the choked branch)",
  valid:
    "Air; sharp small holes at low pressure. Choked, a real hole passes up to 31 % more than Cd 0.61 says, so it is up to 15 % smaller than it reads",
};

const pressure = reading("Pressure, gauge", "the pressure", "smokePressure", ["inH2O", "psi", "mbar", "kPa"], "13");
const holeFields = fields({
  flow: reading("Flow, at 20 °C and 101.325 kPa", "the flow", "smokeFlow", ["L/min", "cc/min", "SCFH"], "0.54"),
  pressure,
  ...air,
});
type Leak = RecordOf<typeof holeFields>;

/** A hole as a shop names it: mm, thousandths of an inch. */
export const sizes = (diameter: number, name = "Hole, sharp-edged (Cd 0.61)"): Reckoned[] => [
  { name, value: fromSi(diameter, "mm") },
  { name: "In thousandths of an inch", value: fromSi(diameter, "thou") },
];

/** The hole that a flow at a pressure goes through. */
export const holeTool: Tool<Leak> = {
  id: "hole",
  name: "Hole from flow and pressure",
  aim: "What the settled ball and the gauge say together, as one sharp-edged hole",
  form: toolForm(holeFields),
  ...PAPER,
  reckon({ flow, pressure, ambient, temperature }) {
    const outside = toSi(ambient);
    return {
      rows: sizes(
        leakDiameter({
          massFlow: massFlowOf(flow),
          upstream: outside + toSi(pressure),
          downstream: outside,
          temperature: toSi(temperature),
        }),
      ),
    };
  },
};

const flowFields = fields({ diameter: reading("Hole", "the hole", "hole", ["mm", "in", "thou"], "0.5"), pressure, ...air });
type Through = RecordOf<typeof flowFields>;

/** The flow that a pressure drives through a hole: the same equation, the other way round. */
export const flowTool: Tool<Through> = {
  id: "flow",
  name: "Flow through a hole",
  aim: "What a known hole passes at a pressure: what the ball should show on the reference plate",
  form: toolForm(flowFields),
  ...PAPER,
  reckon({ diameter, pressure, ambient, temperature }) {
    const outside = toSi(ambient);
    const { massFlow, choked } = orificeFlow({
      upstream: outside + toSi(pressure),
      downstream: outside,
      temperature: toSi(temperature),
      diameter: toSi(diameter),
    });
    return {
      rows: [
        { name: "Flow, at 20 °C and 101.325 kPa", value: fromSi(standardFlow(massFlow), "L/min") },
        { name: "Mass flow", value: fromSi(massFlow, "g/s") },
      ],
      notes: choked ? ["Choked: more suction behind it draws no more through it"] : [],
    };
  },
};
