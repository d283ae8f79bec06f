/**
 * The estimators measured on the gas network of the practice car instead of their own generators: decay, pull-down and boost (trims are in a part of their own). The
 * network knows nothing of any of them.
 */
import { judgeCheck } from "@/core/checks";
import { type PulldownRecord, readPulldown } from "@/core/checks/pulldown";
import { fitDecay } from "@/core/gas/decay";
import { decayTrace, type Tank } from "@/core/gas/network/tank";
import { type Noise, seededNoise } from "@/core/maths/random";
import { engineTruth } from "@/core/practice/car";
import { caseOf, playableCauses } from "@/core/practice/case";
import { operatingState } from "@/core/practice/engine";
import { READERS } from "@/core/practice/readers";
import { vehicleFor } from "@/core/practice/vehicles";

const percent = (share: number) => `${(100 * share).toFixed(1)} %`;
const ninetieth = (errors: readonly number[]) => errors.toSorted((a, b) => a - b)[Math.floor(0.9 * errors.length)] ?? Number.NaN;

/** How long a decay is watched, s. */
const WATCHED = 150;

/** A tank filled, held and shut off, with its walls and a drift; pressures every three seconds, Pa gauge. */
function decayed(noise: Noise, own: Pick<Tank, "volume" | "wallTime">, held: number, leak: number, reference = 0) {
  const trace = decayTrace(
    { ...own, leak, ambient: 101_325, temperature: 293.15 },
    { pressure: 2491, held, duration: WATCHED, every: 3, drift: noise.uniform(-0.3, 0.3), reference },
  );
  return { times: trace.map(([t]) => t), pressures: trace.map(([, gauge]) => gauge + noise.normal(4)) };
}

function decay(count: number, seed: number): void {
  for (const byReference of [false, true])
    for (const [diameter, name, mark] of [
      [0.508e-3, "0.020 in", byReference ? "15 %" : "20 %"],
      [0.254e-3, "0.010 in", byReference ? "25 %" : "40 %"],
    ] as const) {
      const noise = seededNoise(seed);
      const errors: number[] = [];
      let covered = 0;
      for (let i = 0; i < count; i++) {
        const volume = noise.uniform(0.01, 0.06);
        const held = noise.uniform(60, 120);
        const own = { volume, wallTime: noise.uniform(15, 40) };
        const run = (reference = 0) => decayed(noise, own, held, diameter, reference);
        const fit = fitDecay({
          ...run(),
          volume: volume * (byReference ? noise.uniform(0.6, 1.5) : 1 + noise.normal(0.06)),
          volumeSd: 0.12,
          ambient: 101_325,
          temperature: 293.15,
          held,
          ...(byReference ? { reference: { diameter: 0.508e-3, ...run(0.508e-3) } } : {}),
        });
        errors.push(Math.abs(fit.diameter / diameter - 1));
        if (fit.low <= diameter && diameter <= fit.high) covered++;
      }
      console.log(
        `  decay ${byReference ? "with a reference hole" : "by volume"}, ${name}, ${count} tanks: within ±${percent(ninetieth(errors))} (90 %; ±${mark}), inside the interval ${percent(covered / count)} (95 %)`,
      );
    }
}

/** A car of a family with this fault at a size, or sound. */
function carOf(family: "evap" | "boost", cause: string | undefined, size: number, seed: number) {
  for (let vehicle = seed % 256; ; vehicle = (vehicle + 1) % 256) {
    const facts = vehicleFor(family, seededNoise(vehicle));
    if (family === "evap" && facts.evap?.monitor === "canister-pump") continue;
    if (family === "boost" && facts.metering !== "maf") continue;
    const at = playableCauses(facts, family).findIndex((c) => c.id === cause);
    if (cause !== undefined && at < 0) continue;
    const { car } = caseOf({ family, vehicle, faults: [{ cause: Math.max(0, at), size }], symptoms: seed, misleads: false });
    return { ...car, seed, faults: cause === undefined ? [] : car.faults };
  }
}

function pulldown(count: number, seed: number): void {
  const tally = { tightLost: 0, lost: 0, covered: 0, sized: 0 };
  for (let i = 0; i < count; i++) {
    const noise = seededNoise(seed + i);
    const read = (leaks: boolean) => {
      const car = carOf("evap", leaks ? "tank-line" : undefined, noise.uniform(0.3, 1), seed + i);
      const record = READERS.pulldown?.({ car, noise }, {}) as PulldownRecord;
      const hole = readPulldown(record, car.context).hole;
      const truth = leaks ? (0.6 + 1.2 * (car.faults[0]?.size ?? 0)) * 1e-3 : 0;
      return { lost: judgeCheck("pulldown", record, car.context).observation === "pulldown-loses", hole, truth };
    };
    if (read(false).lost) tally.tightLost++;
    const leaking = read(true);
    if (leaking.lost) tally.lost++;
    if (leaking.hole) {
      tally.sized++;
      if (leaking.hole.low <= leaking.truth && leaking.truth <= leaking.hole.high) tally.covered++;
    }
  }
  console.log(
    `  pull-down, ${count} systems tight and ${count} with 1.0 to 1.8 mm: tight called leaking ${percent(tally.tightLost / count)} (1 %), leaking called leaking ${percent(tally.lost / count)}, holes inside their interval ${percent(tally.covered / Math.max(1, tally.sized))} (95 %)`,
  );
}

function boost(count: number, seed: number): void {
  const tally = { named: 0, large: 0, sound: 0, lazy: 0 };
  for (let i = 0; i < count; i++) {
    const noise = seededNoise(seed + i);
    const says = (cause: string | undefined, size: number) => {
      const car = carOf("boost", cause, size, seed + i);
      const record = READERS.boost?.({ car, noise }, {}) as object;
      return { named: judgeCheck("boost", record, car.context).observation === "boost-leak", truth: engineTruth(car) };
    };
    const size = noise.uniform();
    const leak = says("cold-pipe-split", size);
    // Share of full flow that such a hole loses: its area against that of the way through the engine.
    const state = operatingState(leak.truth, { road: { rpm: 2800 } }, seed + i);
    if (state.meter / state.air - 1 >= 0.06) {
      tally.large++;
      if (leak.named) tally.named++;
    }
    if (says(undefined, 0).named) tally.sound++;
    if (says("vanes-stuck", size).named) tally.lazy++;
  }
  console.log(
    `  boost, ${count} logs each: leak named where 6 % or more is lost ${percent(tally.named / Math.max(1, tally.large))} of ${tally.large} (90 %); sound called leaking ${percent(tally.sound / count)} (1 %), lazy vanes called leaking ${percent(tally.lazy / count)}`,
  );
}

/** Every estimator on the network, against the marks that it holds on its own generator. */
export function onNetworkPart(): void {
  console.log("Estimators on the gas network of the practice car (marks in brackets)");
  decay(200, 12);
  pulldown(200, 13);
  boost(150, 14);
}
