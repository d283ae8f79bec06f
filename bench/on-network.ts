/**
 * The estimators measured on the gas network of the practice car instead of their own generators: trims, decay, pull-down and boost. The
 * network knows nothing of any of them.
 */
import { judgeCheck } from "@/core/checks";
import { type PulldownRecord, readPulldown } from "@/core/checks/pulldown";
import { fitShapes, type ShapeId } from "@/core/checks/trims/shapes";
import { R_AIR } from "@/core/gas/air";
import { fitDecay } from "@/core/gas/decay";
import { Network, OUTSIDE } from "@/core/gas/network/network";
import { holeArea, SHARP_EDGED } from "@/core/gas/orifice";
import { type Noise, seededNoise } from "@/core/maths/random";
import { engineTruth } from "@/core/practice/car";
import { caseOf, playableCauses } from "@/core/practice/case";
import { type EngineTruth, operatingState } from "@/core/practice/engine";
import { READERS } from "@/core/practice/readers";
import { vehicleFor } from "@/core/practice/vehicles";

const percent = (share: number) => `${(100 * share).toFixed(1)} %`;
const ninetieth = (errors: readonly number[]) => errors.toSorted((a, b) => a - b)[Math.floor(0.9 * errors.length)] ?? Number.NaN;

/** Surveys of engines with one thing wrong, five points each, read with 1.5 % trim noise and 2 % at the meter. */
function trims(count: number, seed: number): void {
  const noise = seededNoise(seed);
  let [first, sure, sureRight, holes, covered] = [0, 0, 0, 0, 0];
  const errors: number[] = [];
  for (let i = 0; i < count; i++) {
    const turbo = i % 2 === 1;
    const shapes: readonly ShapeId[] = [
      "none",
      "constant",
      "fades-with-flow",
      "grows-with-flow",
      ...(turbo ? (["rich-under-boost"] as const) : []),
    ];
    const shape = shapes[Math.floor(noise.uniform(0, shapes.length))] as ShapeId;
    const diameter = noise.uniform(1.5e-3, 3e-3);
    const truth: EngineTruth = {
      displacement: noise.uniform(1.2e-3, 3e-3),
      ambient: noise.uniform(92e3, 102e3),
      temperature: noise.uniform(280, 305),
      hole: shape === "fades-with-flow" ? diameter : 0,
      fuelError: shape === "constant" ? noise.uniform(0.07, 0.2) : noise.normal(0.012),
      ...(shape === "grows-with-flow" ? { supplyShort: noise.uniform(0.15, 0.3) } : {}),
      ...(turbo ? { boost: noise.uniform(60e3, 95e3) } : {}),
      ...(shape === "rich-under-boost" ? { chargeHole: noise.uniform(5e-3, 9e-3) } : {}),
    };
    const driving = [
      {},
      { foot: 1500 },
      { foot: 2500 },
      { road: { rpm: 2200, map: 0.62 * truth.ambient } },
      { road: { rpm: 3400 } },
    ];
    const points = driving.map((one) => {
      const state = operatingState(truth, one, seed + i);
      const trim = state.trims[0] as number;
      return {
        flow: state.meter * (1 + noise.normal(0.02)),
        map: state.map,
        ...(turbo ? { charge: state.charge + noise.normal(60) } : {}),
        trim: trim + noise.normal(0.015),
        scatter: 0,
        saturated: (Math.abs(trim) >= 0.249 ? Math.sign(trim) : 0) as -1 | 0 | 1,
      };
    });
    const [best] = fitShapes(points, {
      ambient: truth.ambient,
      intakeTemperature: truth.temperature,
      induction: turbo ? "turbo" : "natural",
    });
    const right = best?.id === shape;
    if (right) first++;
    if (best && best.odds >= 0.97) {
      sure++;
      if (right) sureRight++;
    }
    if (shape === "fades-with-flow" && right && best?.hole) {
      holes++;
      if (best.hole.low <= diameter && diameter <= best.hole.high) covered++;
      if (diameter > 1.8e-3 && diameter < 2.4e-3) errors.push(Math.abs(best.hole.diameter / diameter - 1));
    }
  }
  console.log(
    `  trims, ${count} engines: true shape first ${percent(first / count)}; right where 97 % or more was said ${percent(sureRight / sure)} (97 %);` +
      ` holes inside their interval ${percent(covered / holes)} (95 %), size near 2 mm within ±${percent(ninetieth(errors))} (90 %; ±25 %)`,
  );
}

const orifice = (diameter: number) => ({ type: "orifice", effectiveArea: SHARP_EDGED * holeArea(diameter) }) as const;

/** How long a decay is watched, s. */
const WATCHED = 150;

/** A tank filled, held and shut off, with its walls and a drift; pressures every three seconds, Pa gauge. */
function tank(
  noise: Noise,
  { volume, wallTime, held }: { volume: number; wallTime: number; held: number },
  diameter: number,
): { times: number[]; pressures: number[] } {
  const [ambient, temperature] = [101_325, 293.15];
  const drift = noise.uniform(-0.3, 0.3);
  const network = new Network({
    ambient,
    temperature,
    zones: [{ id: "tank", volume, pressure: ambient, temperature, wallTime }],
    joints: [
      { id: "leak", from: "tank", to: OUTSIDE, law: orifice(diameter) },
      { id: "push", from: OUTSIDE, to: "tank", law: { type: "regulator", setPressure: ambient + 2491, maxFlow: 2.4e-4 } },
      {
        id: "drift",
        ...(drift > 0 ? { from: OUTSIDE, to: "tank" } : { from: "tank", to: OUTSIDE }),
        law: { type: "pump", maxFlow: 0, stallPressure: Number.POSITIVE_INFINITY },
      },
    ],
  });
  network.advance(held + 15);
  network.set(1, { type: "regulator", setPressure: ambient, maxFlow: 0 });
  // A gas that warms pushes as one that gains so much mass: ṁ = m·(dT/dt)/T.
  const maxFlow = ((ambient * volume) / (R_AIR * temperature)) * (Math.abs(drift) / WATCHED / temperature);
  network.set(2, { type: "pump", maxFlow, stallPressure: Number.POSITIVE_INFINITY });
  const times = Array.from({ length: WATCHED / 3 + 1 }, (_, k) => 3 * k);
  const pressures = times.map((t) => {
    network.advance(held + 15 + t);
    return network.pressure(0) - ambient + noise.normal(4);
  });
  return { times, pressures };
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
        const own = { volume, held, wallTime: noise.uniform(15, 40) };
        const run = (extra = 0) => tank(noise, own, Math.hypot(diameter, extra));
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
  trims(400, 11);
  decay(200, 12);
  pulldown(200, 13);
  boost(150, 14);
}
