import { type CheckId, judgeCheck } from "@/core/checks";
import { decayRecord, evapSmokeRun, pulldownTrace } from "@/core/checks/evap.fixture";
import { hold, probe } from "@/core/checks/records.fixture";
import { contextOf, NATURAL, smokeRun, VAPOUR } from "@/core/core.fixture";
import { trimSurvey } from "@/core/journal/journal.fixture";

const best = (work: () => unknown): number => {
  const times = Array.from({ length: 12 }, () => {
    const start = performance.now();
    work();
    return performance.now() - start;
  });
  return Math.min(...times);
};

/** Judging the largest records that a door lets in, ms each. */
export function largestTimes(): [string, number][] {
  const natural = contextOf(NATURAL);
  const vapour = contextOf(VAPOUR);
  const many = (n: number, dt: number) =>
    Array.from({ length: n }, (_, i): [number, number, number] => [
      i * dt,
      4.5 + 7 * Math.exp((-i * dt) / 10) + 0.05 * Math.sin(i),
      12.4 * (1 - Math.exp((-i * dt) / 10)),
    ]);
  const machine = { ...smokeRun().machine, autoOff: 7200 };
  const long = { samples: many(20_000, 0.1), endedAt: 2001, heaterOnAt: -10, machine };
  const fall = Array.from({ length: 5000 }, (_, i): [number, number] => [
    i * 0.05,
    10 * Math.exp(-i / 4000) + 0.01 * Math.sin(7 * i),
  ]);
  const trims = trimSurvey([17, 8.5, 4.7, 1.8, 0.2]);
  const points = Array.from({ length: 400 }, (_, i) => {
    const p = trims.points[i % 5] as (typeof trims.points)[number];
    const banks = [p.banks[0], p.banks[0]] as (typeof p.banks)[number][];
    return { ...p, rpm: p.rpm + i, banks: banks.map((b) => ({ ...b, short: (b.short ?? 0) + Math.sin(i) })) };
  });
  const stopped = points.map((p, i) => ({
    ...p,
    rpm: 700 + 8 * i,
    maf: { value: 3 + 0.2 * i, unit: "g/s" as const },
    map: { value: 35 + 0.15 * i, unit: "kPa" as const },
    banks: p.banks.map(() => ({ short: 25, long: 20 })),
  }));
  const two = contextOf({ ...NATURAL, banks: 2 });
  const pull = pulldownTrace({});
  const trace = Array.from({ length: 20_000 }, (_, i) => {
    const at = (i / 20_000) * (pull.points.length - 1);
    const [a, b] = [pull.points[Math.floor(at)], pull.points[Math.ceil(at)]] as [[number, number], [number, number]];
    const share = at - Math.floor(at);
    return [a[0] + share * (b[0] - a[0]) + i * 1e-9, a[1] + share * (b[1] - a[1])] as [number, number];
  });
  const tapped = probe({});
  const column = (f: (i: number) => number) => Array.from({ length: 20_000 }, (_, i) => f(i));
  const series = {
    time: column((i) => i * 0.1),
    trim: column((i) => 10 + Math.sin(i)),
    rpm: column((i) => 750 + 8 * Math.sin(i / 3)),
  };
  const taps = Array.from({ length: 200 }, (_, i) => ({ joint: "manifold-gasket", at: 20 + i * 9 }));
  const records: [string, CheckId, object, typeof natural][] = [
    ["smoke, 20,000 readings", "smoke", smokeRun(4.5, long), natural],
    [
      "EVAP smoke, 20,000 readings",
      "evap-smoke",
      evapSmokeRun(0, { ...long, machine: { ...evapSmokeRun().machine, autoOff: 7200 } }),
      vapour,
    ],
    [
      "decay with a reference, twice 5,000",
      "decay",
      decayRecord(0.0005, { samples: fall, reference: { diameter: { value: 0.5, unit: "mm" }, samples: fall } }),
      vapour,
    ],
    ["pull-down, 20,000", "pulldown", { ...pull, points: trace }, vapour],
    ["hold, twice 5,000", "hold", { ...hold, still: fall, wiggled: fall }, natural],
    ["trims, 400 points of two banks", "trims", { ...trims, points }, two],
    ["trims, 400 points of two banks at their stop", "trims", { ...trims, points: stopped }, two],
    ["probe, 20,000 rows and 200 taps", "probe", { ...tapped, series, taps }, natural],
  ];
  return records.map(([name, check, record, context]) => [name, best(() => judgeCheck(check, record, context))]);
}
