import { boostTrace, judgeBoostCheck, judgedOf } from "@/core/checks/boost";
import { contextOf, TURBO } from "@/core/core.fixture";
import { holeDiameter, SHARP_EDGED } from "@/core/gas/orifice";
import { seededNoise } from "@/core/maths/random";
import { readScanLog } from "@/core/scan-log";
import { type BoostedDrive, boostedDrive, type HiddenEngine } from "./boosted-engine";

/** The log as a scan tool would write it. */
function written({ rows }: BoostedDrive): Uint8Array {
  const head =
    "Time (s),RPM (rpm),MAP (kPa),Charge pressure (kPa),Requested charge pressure (kPa),MAF (g/s),Charge air temperature (°C),Boost actuator command (%),Boost actuator position (%)";
  const lines = rows.map((r) =>
    [
      r.time.toFixed(3),
      r.rpm,
      (r.map / 1e3).toFixed(1),
      (r.charge / 1e3).toFixed(1),
      (r.asked / 1e3).toFixed(1),
      (r.maf * 1e3).toFixed(2),
      (r.chargeTemperature - 273.15).toFixed(0),
      r.command,
      r.position,
    ].join(","),
  );
  return new TextEncoder().encode(`${head}\n${lines.join("\n")}\n`);
}

/** A drive judged blind, as the check does it. */
function judgedDrive(seed: number, hidden: HiddenEngine) {
  const drive = boostedDrive(seed, hidden);
  const log = readScanLog(written(drive));
  const trace = boostTrace(log, drive.ambient);
  if (!trace) throw new Error("nothing was read from a whole log");
  const vehicle = {
    ...TURBO,
    fuel: hidden.diesel ? ("diesel" as const) : ("petrol" as const),
    displacement: { value: drive.displacement * 1e3, unit: "L" as const },
  };
  const record = {
    ...trace,
    source: { kind: "typed" as const },
    egr: "shut" as const,
    warm: true,
    ambient: { value: Math.round(drive.ambient / 10) / 10, unit: "hPa" as const, kind: "absolute" as const },
  };
  const context = contextOf(vehicle);
  const verdict = judgeBoostCheck(record, context);
  const judged = judgedOf(record, context);
  return { drive, verdict, judged, truth: holeDiameter(drive.area / SHARP_EDGED) };
}

const SOUND: HiddenEngine = {
  diesel: false,
  lost: 0,
  meterGain: 1,
  vanes: 1,
  filter: 1,
  temperatureLag: 1,
  shortPulls: false,
};

/** Engines of one world, half of them diesels. */
function world(count: number, from: number, of: (noise: ReturnType<typeof seededNoise>) => Partial<HiddenEngine>) {
  return Array.from({ length: count }, (_, i) => {
    const noise = seededNoise(from + 7 * i);
    const hidden = {
      ...SOUND,
      diesel: i % 2 === 1,
      meterGain: 1 + noise.normal(0.02),
      temperatureLag: noise.uniform(0.5, 3),
      ...of(noise),
    };
    return { hidden, ...judgedDrive(from + i, hidden) };
  });
}

const share = <T>(list: readonly T[], is: (one: T) => boolean) => list.filter(is).length / Math.max(1, list.length);

/** Marks of boost from a log on engines of other hands. @param count engines a world. */
export function boostOutside(count: number, seed: number) {
  const leak = ({ judged }: { judged: { shapes: readonly { id: string }[] } }) => judged.shapes[0]?.id === "leak-after-meter";
  const named = (r: Parameters<typeof leak>[0] & { verdict: { outcome: string } }) => leak(r) && r.verdict.outcome === "fail";
  const large = world(count, seed, (n) => ({ lost: n.uniform(0.06, 0.14) }));
  const four = world(count, seed + 100_000, () => ({ lost: 0.04 }));
  const sound = world(count, seed + 200_000, () => ({}));
  const pulls = world(count, seed + 300_000, (n) => ({ shortPulls: true, lost: n.uniform(0.08, 0.14) }));
  const meter = world(count, seed + 400_000, (n) => ({ meterGain: n.uniform() < 0.5 ? 0.9 : 1.1 }));
  const lazy = world(count, seed + 500_000, (n) => ({ vanes: n.uniform(0.45, 0.7) }));
  const sized = [...large, ...four, ...pulls].filter((r) => r.judged.hole);
  const covered = (list: typeof sized) =>
    share(list, ({ judged: { hole }, truth }) => hole !== null && hole.low <= truth && truth <= hole.high);
  const bias = sized.map(({ judged: { hole }, truth }) => (hole?.diameter ?? 0) / truth - 1);
  return {
    named6: share(large, named),
    named4: share(four, named),
    soundLeaking: share(sound, named),
    covered: covered(sized),
    bias: bias.reduce((a, b) => a + b, 0) / Math.max(1, bias.length),
    pulls: share(pulls, named),
    soundPasses: share(sound, ({ verdict }) => verdict.outcome === "pass"),
    soundFails: share(sound, ({ verdict }) => verdict.outcome === "fail"),
    meterRead: share(meter, ({ judged }) => judged.shapes[0]?.members.some((m) => m === "MAF") ?? false),
    meterLeak: share(meter, named),
    lazyNamed: share(lazy, ({ judged: { shapes } }) => {
      const members = shapes[0]?.members ?? [];
      return shapes[0]?.id === "restricted-or-lazy" && members.every((m) => /vane|vacuum/.test(m));
    }),
  };
}
