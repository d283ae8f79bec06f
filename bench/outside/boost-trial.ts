import { boostTrace, judgeBoostCheck, judgedOf } from "@/core/checks/boost";
import { contextOf, TURBO } from "@/core/core.fixture";
import { holeDiameter, SHARP_EDGED } from "@/core/gas/orifice";
import { seededNoise } from "@/core/maths/random";
import { readScanLog } from "@/core/scan-log";
import { type BoostedDrive, boostedDrive, type HiddenEngine } from "./boosted-engine";

/** The log as a scan tool would write it. */
function written({ rows }: BoostedDrive, trims: boolean): Uint8Array {
  const head =
    "Time (s),RPM (rpm),MAP (kPa),Charge pressure (kPa),Requested charge pressure (kPa),MAF (g/s),Charge air temperature (°C),Boost actuator command (%),Boost actuator position (%)" +
    (trims ? ",STFT (%),LTFT (%)" : "");
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
      ...(trims ? [(100 * r.short).toFixed(1), (100 * r.long).toFixed(1)] : []),
    ].join(","),
  );
  return new TextEncoder().encode(`${head}\n${lines.join("\n")}\n`);
}

/** What is known beside pressures and flow. */
interface Beside {
  /** Fuel trims are logged, of a petrol engine */
  readonly trims?: boolean;
  /** The same car was logged when it was sound, and what it breathed was written down in whole percent */
  readonly known?: boolean;
}

/** A drive judged blind, as the check does it; `own` is what the engine was seen to breathe when it was sound. */

function judgedDrive(seed: number, hidden: HiddenEngine, trims = false, own?: number) {
  const drive = boostedDrive(seed, hidden);
  const log = readScanLog(written(drive, trims && !hidden.diesel));
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
    ...(own ? { ownEfficiency: Math.round(100 * own) } : {}),
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
  breathes: 1,
};

/** Engines of one world, half of them diesels. */
function world(
  count: number,
  from: number,
  of: (noise: ReturnType<typeof seededNoise>) => Partial<HiddenEngine>,
  beside: Beside = {},
) {
  return Array.from({ length: count }, (_, i) => {
    const noise = seededNoise(from + 7 * i);
    const soundGain = 1 + noise.normal(0.02);
    const hidden = {
      ...SOUND,
      diesel: i % 2 === 1,
      meterGain: soundGain,
      temperatureLag: noise.uniform(0.5, 3),
      ...of(noise),
    };
    const sound = { ...hidden, lost: 0, breathes: 1, meterGain: soundGain, drive: from + i + 9_000_000 };
    const own = beside.known ? judgedDrive(from + i, sound).judged.efficiency?.value : undefined;
    return { hidden, ...judgedDrive(from + i, hidden, beside.trims, own) };
  });
}

const share = <T>(list: readonly T[], is: (one: T) => boolean) => list.filter(is).length / Math.max(1, list.length);

const leak = ({ judged }: { judged: { shapes: readonly { id: string }[] } }) => judged.shapes[0]?.id === "leak-after-meter";
const named = (r: Parameters<typeof leak>[0] & { verdict: { outcome: string } }) => leak(r) && r.verdict.outcome === "fail";

/**
 * Marks of a meter that is off, or an engine that breathes otherwise, by a tenth at every flow: of the log alone, and beside what the
 * engine was seen to breathe when it was sound and, of petrol engines, closed-loop trims. @param count engines a world.
 */
export function levelOutside(count: number, seed: number) {
  const meterOff = (n: ReturnType<typeof seededNoise>) => ({ meterGain: n.uniform() < 0.5 ? 0.9 : 1.1 });
  const beside = { trims: true, known: true };
  const alone = world(count, seed + 400_000, meterOff);
  const meter = world(count, seed + 400_000, meterOff, beside);
  const breathing = world(count, seed + 600_000, (n) => ({ breathes: n.uniform() < 0.7 ? 0.9 : 1.1 }), beside);
  const sound = world(count, seed + 700_000, () => ({}), beside);
  const leaking = world(count, seed, (n) => ({ lost: n.uniform(0.06, 0.14) }), beside);
  const level = ({ judged, verdict }: (typeof meter)[number]) =>
    judged.shapes[0]?.id === "meter-or-breathing" && verdict.outcome === "fail";
  const only = (member: RegExp) => (r: (typeof meter)[number]) =>
    level(r) && (r.judged.shapes[0]?.members ?? []).every((m) => member.test(m));
  const petrol = ({ hidden }: (typeof meter)[number]) => !hidden.diesel;
  return {
    alone: share(alone, level),
    read: share(meter, level),
    meterOnly: share(meter.filter(petrol), only(/^MAF$/)),
    breathingRead: share(breathing, level),
    wrongOne: (share(meter.filter(petrol), only(/^valve/)) + share(breathing.filter(petrol), only(/^MAF$/))) / 2,
    asLeak: share([...alone, ...meter], named),
    soundOff: share(sound, level),
    soundPasses: share(sound, ({ verdict }) => verdict.outcome === "pass"),
    leakNamed: share(leaking, named),
  };
}

/** Marks of boost from a log on engines of other hands. @param count engines a world. */
export function boostOutside(count: number, seed: number) {
  const large = world(count, seed, (n) => ({ lost: n.uniform(0.06, 0.14) }));
  const four = world(count, seed + 100_000, () => ({ lost: 0.04 }));
  const sound = world(count, seed + 200_000, () => ({}));
  const pulls = world(count, seed + 300_000, (n) => ({ shortPulls: true, lost: n.uniform(0.08, 0.14) }));
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
    lazyNamed: share(lazy, ({ judged: { shapes } }) => {
      const members = shapes[0]?.members ?? [];
      return shapes[0]?.id === "restricted-or-lazy" && members.every((m) => /vane|vacuum/.test(m));
    }),
  };
}
