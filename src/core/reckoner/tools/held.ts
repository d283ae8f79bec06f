import { formOf, typedQuantity } from "../../form";
import { holeOfLoss } from "../../gas/hold";
import { strictObject } from "../../input";
import { formatNumber, fromSi, type Quantity, toSi } from "../../units";
import { type Air, air, airField, ambientField, needs, reading, seconds } from "../fields";
import type { Letter, Tool } from "../tool";
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

interface Held extends Air {
  readonly volume: Quantity;
  readonly start: Quantity;
  readonly end: Quantity;
  readonly seconds: number;
}

/** What a part lost on a hand pump, as a hole. */
export const heldTool: Tool<Held> = {
  id: "held",
  name: "Loss on a hand pump as a hole",
  aim: "Whether what a part loses is anything like the leak that is looked for",
  form: formOf<Held, undefined>()({
    schema: strictObject({
      volume: needs("trapped", "the trapped volume"),
      start: needs("vacuum", "the vacuum at the start"),
      end: needs("vacuum", "the vacuum that was left"),
      seconds: seconds("how long it was watched"),
      ...air,
    }),
    fields: {
      volume: reading("Trapped gas volume", "trapped", ["mL", "L"], "30"),
      start: reading("Vacuum at the start", "vacuum", ["inHg", "kPa", "mbar"], "20"),
      end: reading("Vacuum that was left", "vacuum", ["inHg", "kPa", "mbar"], "19"),
      seconds: { type: "number", label: "Watched, s", bare: "s", example: "60" },
      ambient: ambientField,
      temperature: airField,
    },
  }),
  ...PAPER,
  reckon({ volume, start, end, seconds, ambient, temperature }) {
    const outside = toSi(ambient);
    if (toSi(start) >= outside) throw new RangeError("That is more vacuum than the air outside has pressure");
    if (toSi(end) > toSi(start)) throw new RangeError("It ends with more vacuum than it began with: nothing leaks uphill");
    const hole = holeOfLoss({
      volume: toSi(volume),
      start: outside - toSi(start),
      end: outside - toSi(end),
      seconds,
      ambient: outside,
      temperature: toSi(temperature),
    });
    const share = 1 - toSi(end) / toSi(start);
    return {
      rows: [
        { name: "Lost", value: { value: 100 * share, unit: "%" } },
        { name: "The same in 60 s", value: { value: 100 * (1 - (1 - share) ** (60 / seconds)), unit: "%" } },
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

interface Seen extends Air {
  readonly volume: Quantity;
  readonly pressure: Quantity;
  readonly division: Quantity;
  readonly seconds: number;
}
/** Less than two divisions between two readings is no difference. */
const DIVISIONS = 2;

/** The smallest hole that a shut-off test can tell from none. */
export const seenTool: Tool<Seen> = {
  id: "seen",
  name: "What a test can see",
  aim: "The smallest hole that this gauge can tell from none in that time, before anything is set up",
  form: formOf<Seen, undefined>()({
    schema: strictObject({
      volume: needs("volume", "the volume that is watched"),
      pressure: needs("smokePressure", "the pressure at shut-off"),
      division: needs("smokePressure", "one division of the gauge"),
      seconds: seconds("how long it is watched"),
      ...air,
    }),
    fields: {
      volume: reading("Gas volume", "volume", ["L", "gal"], "30"),
      pressure: reading("Pressure at shut-off, gauge", "smokePressure", ["inH2O", "psi", "mbar", "kPa"], "10"),
      division: reading("One division of the gauge", "smokePressure", ["inH2O", "psi", "mbar", "kPa"], "0.1"),
      seconds: { type: "number", label: "Watched, s", bare: "s", example: "120" },
      ambient: ambientField,
      temperature: airField,
    },
  }),
  ...PAPER,
  reckon({ volume, pressure, division, seconds, ambient, temperature }) {
    const [outside, start, lost] = [toSi(ambient), toSi(pressure), DIVISIONS * toSi(division)];
    if (!(start > 0 && toSi(division) > 0)) throw new RangeError("Pressure and division lie above nothing");
    if (lost >= start) throw new RangeError("Two divisions of this gauge are all the pressure there is: take a finer one");
    const hole = holeOfLoss({
      volume: toSi(volume),
      start: outside + start,
      end: outside + start - lost,
      seconds,
      ambient: outside,
      temperature: toSi(temperature),
    });
    // 1 °C of drift moves a shut pressure by p/T.
    const perKelvin = outside / toSi(temperature);
    return {
      rows: sizes(hole, "Smallest hole it can see"),
      notes: [
        `A drift of ${formatNumber(lost / perKelvin, 2)} °C moves the gauge as much as that: keep the sun off, and do not touch the tank`,
      ],
    };
  },
};
