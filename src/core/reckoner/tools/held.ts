import { fields, type RecordOf, typedQuantity } from "../../form";
import { fitDecay } from "../../gas/decay";
import { holeOfLoss, shareLostIn } from "../../gas/hold";
import { formatNumber, fromSi, type Quantity, toSi } from "../../units";
import { air, reading, seconds, toolForm } from "../fields";
import type { Letter, Tool } from "../tool";
import { DECAY_PAPER } from "./decay";
import { sizes } from "./hole";

const PAPER = {
  formula: "CdA = V·Δp/(R·T·∫|ψ| dt)",
  symbols: [
    ["V", "trapped gas volume", "m³"],
    ["Δp", "what was lost", "Pa"],
    ["ψ", "orifice flow for each m² of hole at the pressures in between", "kg/(s·m²)"],
    ["R, T", "287.05 J/(kg·K), and the air's temperature", "K"],
  ] as readonly Letter[],
  source: "Ideal gas, isothermal; compressible orifice flow (Shapiro 1953)",
  valid: "Slow losses, walls as warm as the gas",
};

const vacuum = (label: string, what: string, example: string) => reading(label, what, "vacuum", ["inHg", "kPa", "mbar"], example);
const heldFields = fields({
  volume: reading("Trapped gas volume", "the trapped volume", "trapped", ["mL", "L"], "30"),
  start: vacuum("Vacuum at the start", "the vacuum at the start", "20"),
  end: vacuum("Vacuum that was left", "the vacuum that was left", "19"),
  seconds: seconds("Watched, s", "how long it was watched", { example: "60" }),
  ...air,
});
type Held = RecordOf<typeof heldFields>;

/** Loss of a part on a hand pump, as a hole. */
export const heldTool: Tool<Held> = {
  id: "held",
  name: "Loss on a hand pump as a hole",
  aim: "Whether what a part loses is anything like the leak that is looked for",
  form: toolForm(heldFields),
  ...PAPER,
  reckon({ volume, start, end, seconds, ambient, temperature }) {
    const outside = toSi(ambient);
    if (toSi(start) >= outside) throw new RangeError("That is more vacuum than the air outside has pressure");
    if (toSi(end) > toSi(start)) throw new RangeError("It ends with more vacuum than it began with: nothing leaks uphill");
    const held = {
      volume: toSi(volume),
      start: outside - toSi(start),
      end: outside - toSi(end),
      seconds,
      ambient: outside,
      temperature: toSi(temperature),
    };
    const hole = holeOfLoss(held);
    const share = 1 - toSi(end) / toSi(start);
    return {
      rows: [
        { name: "Lost", value: { value: 100 * share, unit: "%" } },
        { name: "The same in 60 s", value: { value: 100 * (shareLostIn(held, 60) || 0), unit: "%" } },
        ...sizes(hole),
      ],
      notes: end.value === 0 ? ["It ran empty: the hole is this large at the least"] : [],
    };
  },
  into: {
    check: "hold",
    draft: ({ volume, start, end, seconds }) => {
      const inHg = (q: Quantity) => fromSi(toSi(q), "inHg").value;
      return {
        still: [
          [0, inHg(start)],
          [seconds, inHg(end)],
        ],
        volume: typedQuantity(volume),
      };
    },
  },
};

const gauge = (label: string, what: string, example: string) =>
  reading(label, what, "smokePressure", ["inH2O", "psi", "mbar", "kPa"], example);
const seenFields = fields({
  volume: reading("Gas volume", "the volume that is watched", "volume", ["L", "gal"], "30"),
  pressure: gauge("Pressure at shut-off, gauge", "the pressure at shut-off", "10"),
  division: gauge("One division of the gauge", "one division of the gauge", "0.1"),
  seconds: seconds("Watched, s", "how long it is watched", { example: "120" }),
  ...air,
});
type Seen = RecordOf<typeof seenFields>;
/** As many readings as are noted in such a test, and how long it was held before, s. */
const READINGS = 24;
const HELD = 120;
/** Readings of less than so many divisions say nothing. */
const LEAST_DIVISIONS = 4;

/** The smallest hole that a shut-off test can tell from none. */
export const seenTool: Tool<Seen> = {
  id: "seen",
  name: "What a test can see",
  aim: "The smallest hole that this gauge can tell from none in that time, before anything is set up",
  form: toolForm(seenFields),
  ...DECAY_PAPER,
  valid: "A plastic tank, held two minutes before, bay doors shut: what its volume, its walls and a drift leave open is in it",
  reckon({ volume, pressure, division, seconds, ambient, temperature }) {
    const [outside, start, step] = [toSi(ambient), toSi(pressure), toSi(division)];
    if (!(start > 0 && step > 0)) throw new RangeError("Pressure and division are above zero");
    if (LEAST_DIVISIONS * step >= start)
      throw new RangeError("Four divisions of this gauge are all the pressure there is: take a finer one");
    const times = Array.from({ length: READINGS }, (_, i) => (i * seconds) / (READINGS - 1));
    // What a test of a tight system would say it could have seen, by the fit that judges a real one.
    const { smallestVisible } = fitDecay({
      times,
      pressures: times.map(() => start),
      volume: toSi(volume),
      ambient: outside,
      temperature: toSi(temperature),
      held: HELD,
      division: step,
      yields: true,
    });
    // 1 °C of drift moves a shut pressure by p/T.
    const perKelvin = outside / toSi(temperature);
    return {
      rows: sizes(smallestVisible, "Smallest hole it can see"),
      notes: [
        `A drift of ${formatNumber((2 * step) / perKelvin, 2)} °C moves the gauge by two divisions: keep the sun off, and do not touch the tank`,
      ],
    };
  },
};
