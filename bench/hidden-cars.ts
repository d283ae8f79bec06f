import { type CheckContext, type CheckId, contextOf, judgeCheck, type Verdict } from "@/core/checks";
import { behind } from "@/core/checks/pinch";
import type { TrimSurvey } from "@/core/checks/trims";
import { type Cause, causesOf, codeObservations, type Family, type Trait } from "@/core/faults";
import { type Noise, seededNoise } from "@/core/maths/random";
import { DEFAULT_SHOP } from "@/core/shop/settings";
import { type EngineNow, type Evidence, familiesOf, type PossibleCheck } from "@/core/suspects";
import { fromSi, type Quantity } from "@/core/units";
import { entriesOf, layoutOf, reachOf, usualSetup, type VehicleFacts } from "@/core/vehicle";
import { type HiddenEngine, seenAt, usualPoints } from "../demo/engine";
import { simulateSmoke } from "../demo/smoke";
import { codeOf, KINDS, pressedVehicle, pressureReaders } from "./pressure-readers";

/** A made-up car with one or two faults, and all that its checks will read. */
export interface HiddenCar {
  readonly context: CheckContext;
  readonly faults: readonly Cause[];
  /** Families that its codes point at */
  readonly families: readonly Family[];
  readonly story: readonly Evidence[];
  /** Driven in just now, or stood overnight */
  readonly arrives: EngineNow;
  /** Carries a check out on this car; the same check twice reads anew */
  read(candidate: PossibleCheck): Verdict;
}

const pick = <T>(noise: Noise, list: readonly T[], weight: (item: T) => number): T => {
  let left = noise.uniform(
    0,
    list.reduce((sum, item) => sum + weight(item), 0),
  );
  const chosen = list.find((item) => {
    left -= weight(item);
    return left <= 0;
  });
  return chosen ?? (list.at(-1) as T);
};

const LEAKS: readonly Trait[] = [
  "manifold-leak",
  "branch-leak",
  "booster-leak",
  "crankcase-leak",
  "pcv-passes",
  "purge-leak",
  "exhaust-air",
  "actuator-leak",
];

/** How well a leak's place shows: to the eye, to smoke, to the probe. How the cars are made, not how they are judged. */
const SHOWS: Partial<Record<Trait, readonly [eye: number, smoke: number, probe: number]>> = {
  "manifold-leak": [0.15, 0.8, 0.8],
  "branch-leak": [0.5, 0.92, 0.8],
  "booster-leak": [0.45, 0.85, 0.65],
  "crankcase-leak": [0.4, 0.85, 0.4],
  "pcv-passes": [0.12, 0.5, 0.6],
  "duct-leak": [0.5, 0.93, 0.45],
  "charge-leak": [0.5, 0.85, 0.05],
  "exhaust-air": [0.4, 0.8, 0.1],
  "actuator-leak": [0.35, 0.6, 0.3],
  "purge-leak": [0.02, 0.03, 0.05],
};

/** Symptoms of each kind of fault as owners tell them; anything else is told one time in twenty. */
const TELLS: Partial<Record<Trait, Record<string, number>>> = {
  "manifold-leak": { "rough-idle": 0.5, "hiss-idle": 0.25, "cold-worse": 0.4 },
  "branch-leak": { "rough-idle": 0.4, "hiss-idle": 0.5 },
  "booster-leak": { "brake-hard": 0.5, "hiss-idle": 0.45, "rough-idle": 0.3 },
  "crankcase-leak": { "oil-smell": 0.4, "rough-idle": 0.35 },
  "pcv-passes": { "whistle-cap": 0.55, "rough-idle": 0.45, "hiss-idle": 0.3 },
  "purge-leak": { stalls: 0.3, "rough-idle": 0.4 },
  "charge-leak": { "hiss-load": 0.6, "low-power": 0.65 },
  "inside-leak": { stalls: 0.45, "rough-idle": 0.45, "low-power": 0.25 },
  "exhaust-air": { "ticking-cold": 0.5, "cold-worse": 0.3 },
  restriction: { "low-power": 0.65 },
  "exhaust-restriction": { "low-power": 0.75 },
  "ports-coked": { "rough-idle": 0.4, "dull-low": 0.25 },
  "crankcase-blocked": { "oil-smell": 0.45 },
  "idle-control": { stalls: 0.5, "rough-idle": 0.5 },
  "actuator-leak": { "dull-low": 0.45, "comes-and-goes": 0.4 },
  "valve-stuck": { "dull-low": 0.5, "comes-and-goes": 0.25 },
  "circuit-dead": { "dull-low": 0.5, "comes-and-goes": 0.3 },
  "device-stuck": { "dull-low": 0.5 },
  "fuel-supply": { "low-power": 0.65 },
  "meter-range": { "low-power": 0.4 },
  "engine-mechanical": { "rough-idle": 0.55 },
};
const ALL_TELLS = [...new Set(Object.values(TELLS).flatMap((t) => Object.keys(t)))];

/** Makes a car from a seed: one fault in four of five, two in the rest. */
export function hiddenCar(seed: number): HiddenCar {
  const noise = seededNoise(seed);
  const turbo = noise.uniform() < 0.25;
  const facts: VehicleFacts = {
    make: "Ondrell",
    model: "Petrel",
    year: 2014,
    registration: "FW 00",
    fuel: "petrol",
    induction: turbo ? "turbo" : "natural",
    metering: noise.uniform() < 0.15 ? "map" : "maf",
    banks: noise.uniform() < 0.2 ? 2 : 1,
    displacement: { value: Math.round(noise.uniform(12, 30)) / 10, unit: "L" },
    fitted: [
      "booster",
      "pcv",
      "evap",
      ...(noise.uniform() < 0.4 ? (["egr"] as const) : []),
      ...(noise.uniform() < 0.35 ? (["runner-flaps"] as const) : []),
      ...(noise.uniform() < 0.2 ? (["idle-air"] as const) : []),
    ],
    ...(noise.uniform() < 0.6
      ? {
          crankcaseBand: {
            low: { value: -6, unit: "hPa", kind: "gauge" },
            high: { value: -1, unit: "hPa", kind: "gauge" },
          } as const,
        }
      : {}),
  };
  const context = contextOf(facts, DEFAULT_SHOP);
  const causes = causesOf(layoutOf(facts), facts).filter((c) => c.id !== "healthy");
  const faults = [pick(noise, causes, (c) => c.prior)];
  if (noise.uniform() < 0.2) {
    const rest = causes.filter((c) => c.id !== faults[0]?.id && c.trait !== faults[0]?.trait);
    faults.push(pick(noise, rest, (c) => c.prior));
  }
  const engine = engineOf(facts, faults, noise);
  const survey = surveyOf(engine, noise);
  const idleTrim = survey.points[0]?.banks.map((b) => b.long ?? 0) ?? [0];
  return {
    context,
    faults,
    families: ["engine"],
    arrives: noise.uniform() < 0.5 ? "warm" : "cold",
    story: storyOf(facts, faults, idleTrim, noise),
    read: (candidate) => readCheck(candidate, { context, faults, engine, survey, noise }),
  };
}

/** A car of the pressure side: boost, filter, secondary air or EGR in turn; two faults in one of six. */
export function pressedCar(seed: number): HiddenCar {
  const noise = seededNoise(seed);
  const kind = KINDS[seed % KINDS.length] as (typeof KINDS)[number];
  const facts = pressedVehicle(kind, noise);
  const context = contextOf(facts, DEFAULT_SHOP);
  const own = causesOf(layoutOf(facts), facts, [kind]).filter((c) => c.id !== "healthy");
  const faults = [pick(noise, own, (c) => c.prior)];
  if (noise.uniform() < 1 / 6) {
    const rest = own.filter((c) => c.id !== faults[0]?.id && c.trait !== faults[0]?.trait);
    if (rest.length > 0) faults.push(pick(noise, rest, (c) => c.prior));
  }
  const codes = [...new Set(faults.flatMap((f) => codeOf(kind, f, noise) ?? []))];
  const told = ALL_TELLS.filter((s) => noise.uniform() < Math.max(0.03, ...faults.map((f) => TELLS[f.trait]?.[s] ?? 0)));
  const story = [
    ...codeObservations(codes, facts.banks).map((observation) => ({ observation, entry: "codes" })),
    ...told.map((s) => ({ observation: `symptom:${s}`, entry: "story" })),
  ];
  const engine = engineOf(facts, faults, noise);
  const survey = surveyOf(engine, noise);
  return {
    context,
    faults,
    families: familiesOf(
      story.map((e) => e.observation),
      [],
    ),
    arrives: noise.uniform() < 0.5 ? "warm" : "cold",
    story,
    read: (candidate) => readCheck(candidate, { context, faults, engine, survey, noise }),
  };
}

/** What the faults do to air and fuel. */
function engineOf(facts: VehicleFacts, faults: readonly Cause[], noise: Noise): HiddenEngine {
  const litres = facts.displacement.value;
  const engine: HiddenEngine = {
    displacement: litres * 1e-3,
    ambient: noise.uniform(93e3, 102e3),
    temperature: noise.uniform(280, 303),
    turbo: facts.induction === "turbo",
    banks: facts.banks,
    fuelError: noise.normal(0.012),
  };
  const idle = 1.1 * engine.displacement;
  for (const fault of faults) {
    if (LEAKS.includes(fault.trait)) {
      const smallest = fault.trait === "actuator-leak" ? 0.6e-3 : fault.trait === "purge-leak" ? 1e-3 : 1.4e-3;
      const diameter = noise.uniform(smallest, smallest + 1.6e-3) * Math.sqrt(litres / 1.8);
      engine.manifoldHole = { diameter, ...(fault.bank ? { bank: fault.bank === 1 ? 0 : 1 } : {}) };
    }
    if (fault.trait === "charge-leak") engine.chargeHole = noise.uniform(4e-3, 9e-3);
    if (fault.trait === "duct-leak") engine.fuelError += noise.uniform(0.06, 0.2);
    if (fault.trait === "meter-low" || fault.trait === "sensor-bias" || fault.trait === "fuel-pressure") {
      engine.fuelError += noise.uniform(0.08, 0.22);
    }
    if (fault.trait === "fuel-supply" || fault.trait === "meter-range") {
      engine.supplyLimit = { atFullFlow: noise.uniform(0.12, 0.3), fullFlow: idle * noise.uniform(12, 25), exponent: 1.5 };
    }
  }
  return engine;
}

const absolute = (pa: number, unit: "hPa" | "kPa"): Quantity => fromSi(pa, unit, "absolute");

function surveyOf(engine: HiddenEngine, noise: Noise): TrimSurvey {
  return {
    source: { kind: "typed" },
    ambient: absolute(engine.ambient, "hPa"),
    intakeTemperature: fromSi(engine.temperature, "°C"),
    points: usualPoints(engine, noise).map((point) => {
      const seen = seenAt(engine, point);
      return {
        rpm: Math.round(point.rpm),
        maf: fromSi(seen.maf * (1 + noise.normal(0.015)), "g/s"),
        map: absolute(point.map, "kPa"),
        ...(engine.turbo ? { chargePressure: absolute(point.charge, "kPa") } : {}),
        banks: seen.trims.map((t) => ({ short: 0, long: Math.min(25, Math.max(-25, 100 * t + noise.normal(1.2))) })),
      };
    }),
  };
}

function storyOf(facts: VehicleFacts, faults: readonly Cause[], idleTrim: readonly number[], noise: Noise): Evidence[] {
  const chance = (p: number) => noise.uniform() < p;
  const codes: string[] = [];
  if (facts.metering === "maf") {
    if ((idleTrim[0] ?? 0) > 10 && chance(0.85)) codes.push("P0171");
    if ((idleTrim[1] ?? 0) > 10 && chance(0.85)) codes.push("P0174");
  }
  for (const { trait } of faults) {
    if (trait === "charge-leak" && chance(0.6)) codes.push("P0299");
    if ((trait === "meter-low" || trait === "meter-range" || trait === "restriction") && chance(0.35)) codes.push("P0101");
    if (trait === "purge-leak" && chance(0.4)) codes.push("P0496");
    if ((trait === "actuator-leak" || trait === "valve-stuck" || trait === "device-stuck") && chance(0.5)) codes.push("P2004");
    if (trait === "circuit-dead" && chance(0.7)) codes.push("P2008");
    if (trait === "idle-control" && chance(0.5)) codes.push("P0507");
  }
  if (facts.metering === "map" && faults.some((f) => LEAKS.includes(f.trait)) && chance(0.5)) codes.push("P0507");
  const told = ALL_TELLS.filter((symptom) => chance(Math.max(0.05, ...faults.map((f) => TELLS[f.trait]?.[symptom] ?? 0))));
  return [
    ...codeObservations(codes, facts.banks).map((observation) => ({ observation, entry: "codes" })),
    ...told.map((s) => ({ observation: `symptom:${s}`, entry: "story" })),
  ];
}

interface Bench {
  readonly context: CheckContext;
  readonly faults: readonly Cause[];
  readonly engine: HiddenEngine;
  readonly survey: TrimSurvey;
  readonly noise: Noise;
}

/** How often a leak of the charge side lets out air that somebody finds, once it stands under boost. */
const PRESSED = 0.95;

/** One check in twelve is spoilt, whatever it was. */
const SPOILT = 1 / 12;

function readCheck(candidate: PossibleCheck, bench: Bench): Verdict {
  const { context, noise } = bench;
  if (noise.uniform() < SPOILT && candidate.check !== "look") {
    return { outcome: "void", headline: "Spoilt", measures: [], reasons: [], zones: [] };
  }
  return judgeCheck(candidate.check, recordOf(candidate, bench), context);
}

const volts = (value: number) => ({ value, unit: "V" });
const gauge = (unit: "inHg" | "hPa") => ({
  name: "Gauge",
  division: { value: 0.1, unit },
  zero: { value: 0, unit },
});

/** The record a technician would bring back from this car. */
function recordOf(candidate: PossibleCheck, { context, faults, engine, survey, noise }: Bench): object {
  const { layout, vehicle } = context;
  const chance = (p: number) => noise.uniform() < p;
  const traits = faults.map((f) => f.trait);
  const has = (trait: Trait) => traits.includes(trait);
  const place = candidate.place ?? "";
  const at = (c: Cause, id: string) => c.joint === id || c.id === id || c.device === id;
  const faulty = faults.filter((f) => at(f, place));
  const READERS: Partial<Record<CheckId, () => object>> = {
    look: () => {
      const seen = faults.filter((f) => chance(f.id === "filter-clogged" ? 0.8 : (SHOWS[f.trait]?.[0] ?? 0.05)));
      const wrong = chance(0.04)
        ? [
            pick(
              noise,
              layout.joints.filter((j) => j.kind === "seal"),
              () => 1,
            ).id,
          ]
        : [];
      const found = [...seen.map((f) => (f.id === "filter-clogged" ? "filter" : (f.joint ?? f.id))), ...wrong];
      const items = candidate.outcomes.map((o) => o.split(":")[1]).filter((id): id is string => id !== undefined);
      return { items: [...items, "filter", ...found].map((id) => ({ id, state: found.includes(id) ? "found" : "fine" })) };
    },
    trims: () => survey,
    probe: () => ({
      agent: "gas",
      source: { kind: "typed" },
      closedLoop: true,
      taps: (candidate.tested ?? []).map((joint) => {
        const own = faults.find((f) => f.joint === joint);
        const reacts = own ? chance(SHOWS[own.trait]?.[2] ?? 0.1) : chance(0.003);
        const trimBefore = 10 + noise.normal(1);
        return {
          joint,
          typed: {
            trimBefore,
            trimAfter: trimBefore - (reacts ? noise.uniform(4.5, 11) : 0) + noise.normal(0.7),
            rpmBefore: 750,
            rpmAfter: 750 + (reacts ? noise.uniform(0, 70) : 0) + noise.normal(6),
          },
        };
      }),
    }),
    vacuum: () => {
      const leak = engine.manifoldHole ? (1e3 * engine.manifoldHole.diameter) ** 2 / vehicle.displacement.value : 0;
      const egr = has("inside-leak") ? 4 : 0;
      const raised = has("idle-control") || (vehicle.metering === "map" && leak > 1.5);
      const drop = (101325 - engine.ambient) / 3386.389;
      const value = 19.3 - drop - 0.8 * leak - egr - (has("engine-mechanical") ? 3.5 : 0) + noise.normal(0.7) + (raised ? 1 : 0);
      return {
        vacuum: { value, unit: "inHg", kind: "vacuum" },
        rpm: Math.round(raised ? noise.uniform(950, 1300) : 750 + noise.normal(20)),
        needle:
          has("engine-mechanical") && chance(0.4) ? "regular-flick" : has("idle-control") && chance(0.3) ? "drifting" : "steady",
        snap: has("exhaust-restriction") && chance(0.6) ? "slow-return" : "drops-and-overshoots",
        portSound: true,
        warm: true,
        instrument: gauge("inHg"),
        ambient: absolute(engine.ambient, "hPa"),
      };
    },
    airflow: () => {
      const restricted = has("restriction") ? noise.uniform(0.66, 0.8) : noise.uniform(0.95, 0.985);
      const low =
        has("meter-low") || has("duct-leak") ? noise.uniform(0.72, 0.9) : has("meter-range") ? noise.uniform(0.65, 0.8) : 1;
      const back = has("exhaust-restriction") ? noise.uniform(0.65, 0.8) : 1;
      const rpm = 4500;
      const pull = engine.turbo ? noise.uniform(1.4, 1.8) : restricted;
      const map = engine.ambient * pull;
      const swept = (0.86 * map * engine.displacement * rpm) / (287.05 * (engine.temperature + 15) * 120);
      return {
        source: { kind: "typed" },
        points: [
          {
            state: "idle",
            rpm: 750,
            map: absolute(33e3, "kPa"),
            ...(vehicle.metering === "maf" ? { maf: fromSi(1.1 * engine.displacement * low, "g/s") } : {}),
          },
          {
            state: "wide-open",
            rpm,
            map: absolute(map, "kPa"),
            ...(vehicle.metering === "maf" ? { maf: fromSi(swept * low * back * (1 + noise.normal(0.02)), "g/s") } : {}),
          },
        ],
        ambient: absolute(engine.ambient, "hPa"),
        intakeTemperature: fromSi(engine.temperature, "°C"),
        warm: true,
      };
    },
    crankcase: () => {
      const usual =
        has("pcv-passes") && chance(0.85)
          ? -40
          : has("crankcase-blocked") && chance(0.85)
            ? 5
            : has("engine-mechanical") && chance(0.3)
              ? 3
              : -3;
      return {
        idle: { value: usual + noise.normal(0.6), unit: "hPa", kind: "gauge" },
        rpm: 750,
        warm: true,
        sealed: true,
        instrument: gauge("hPa"),
      };
    },
    smoke: () => {
      const setup = usualSetup(layout, place || (entriesOf(layout)[0]?.id as string));
      const reach = reachOf(layout, setup);
      const reached = faults.filter((f) => reach.tested.some((j) => j.id === f.joint) && SHOWS[f.trait]);
      const seen = reached.filter((f) => chance(SHOWS[f.trait]?.[1] ?? 0));
      const wrong = chance(0.02) ? [pick(noise, reach.tested, () => 1).id] : [];
      const inside = has("inside-leak") && chance(0.75) ? 6e-3 : has("purge-leak") && chance(0.2) ? 5e-3 : 0;
      const hole = inside || (reached.length > 0 ? (engine.manifoldHole?.diameter ?? 0) : 0);
      const { manifoldHole: _, ...bare } = engine;
      return simulateSmoke(hole ? { ...bare, manifoldHole: { diameter: hole } } : bare, layout, {
        seed: Math.floor(noise.uniform(1, 1e6)),
        ...setup,
        blocked: [...setup.blocked],
        heldOpen: [...setup.heldOpen],
        arrivals: reach.zones.filter((z) => !reach.behindEngine.includes(z)),
        seen: [...seen.map((f) => f.joint as string), ...wrong],
        seconds: 120,
      });
    },
    "pressure-test": () => {
      const setup = { entry: place, blocked: [], heldOpen: [] };
      const reached = faults.filter((f) => reachOf(layout, setup).tested.some((j) => j.id === f.joint));
      const out = reached.filter((f) => f.trait === "charge-leak" && chance(PRESSED)).map((f) => f.joint as string);
      const wrong = chance(0.01) ? [pick(noise, reachOf(layout, setup).tested, () => 1).id] : [];
      const bar = (value: number) => ({ value, unit: "bar", kind: "gauge" });
      return {
        ...setup,
        maxBoost: bar(1),
        ratings: { tool: bar(2) },
        steps: [0.3, 0.6, 1].map((p) => ({ pressure: bar(p) })),
        escapes: [...new Set([...out, ...wrong])].map((joint) => ({ joint, sign: "soap", from: bar(0.6) })),
        everywhere: true,
        instrument: { name: "Gauge", division: { value: 0.02, unit: "bar" }, zero: { value: 0, unit: "bar" } },
      };
    },
    pinch: () => {
      const hidden = behind(layout, place);
      const lean = Math.max(
        6,
        100 * (seenAt(engine, { rpm: 750, map: 33e3, charge: engine.ambient, coolant: 363 }).trims[0] ?? 0),
      );
      const cut = faults.some((f) => f.joint && hidden.includes(f.joint) && LEAKS.includes(f.trait)) && chance(0.93);
      const shut = cut ? (faults.length > 1 ? lean * 0.5 : 1) : lean;
      return {
        joint: place,
        how: "pinch",
        blankProved: true,
        reads: "trim",
        before: lean + noise.normal(0.7),
        shut: shut + noise.normal(0.7),
        released: lean + noise.normal(0.7),
      };
    },
    hold: () => {
      const leaks = faulty.some((f) => ["actuator-leak", "booster-leak", "supply-weak"].includes(f.trait)) && chance(0.93);
      const stuck = place.endsWith("-diaphragm") && faults.some((f) => f.trait === "boost-lazy") && chance(0.7);
      return {
        joint: place,
        part: "actuator",
        moved: true,
        ...(stuck ? { reach: "short" } : {}),
        unit: "inHg",
        still: [
          [0, 20],
          [60, leaks && chance(0.6) ? 9 : 19.7],
        ],
        wiggled: [
          [0, 20],
          [40, leaks ? 8 : 19.8],
        ],
        instrument: gauge("inHg"),
      };
    },
    valve: () => {
      const leaks = faulty.some((f) => f.trait === "purge-leak" || f.trait === "inside-leak") && chance(0.92);
      const stuck = faulty.some((f) => f.trait === "valve-stuck" || f.trait === "idle-control") && chance(0.9);
      return {
        joint: place,
        rests: "closed",
        power: "scan-tool",
        unplugged: false,
        clicked: !faulty.some((f) => f.trait === "circuit-dead"),
        part: "fitted",
        temperature: "cold",
        unit: "inHg",
        rest: { start: 18, end: leaks ? 8 : 17.8, seconds: 60 },
        energised: { start: 18, end: stuck || faulty.some((f) => f.trait === "circuit-dead") ? 17.8 : 0, seconds: 60 },
        instrument: gauge("inHg"),
      };
    },
    output: () => {
      const dead =
        faulty.some((f) => ["valve-stuck", "circuit-dead", "device-stuck", "air-pump-dead", "egr-blocked"].includes(f.trait)) ||
        (has("idle-control") && place === "idle-air");
      return {
        joint: place,
        output: place,
        command: "on",
        limit: 30,
        rearmed: true,
        expected: "it answers",
        seen: (dead ? chance(0.92) : chance(0.05)) ? "nothing" : "as-expected",
        seenAfter: 5,
      };
    },
    circuit: () => {
      const dead = faulty.some((f) => f.trait === "circuit-dead") && chance(0.95);
      return {
        joint: place,
        wiring: "two-wire",
        switched: "ground",
        battery: volts(14.1),
        engineRunning: true,
        needsEngine: true,
        readings: [
          { pin: "feed", voltage: volts(13.9) },
          { pin: "across", voltage: volts(dead ? 0.1 : 13.5) },
          { pin: "lamp", lamp: dead ? "dark" : "bright" },
        ],
        pierced: false,
        instrument: { name: "Meter", division: volts(0.01), zero: volts(0) },
      };
    },
    chain: () => {
      const is = (id: string) => faults.some((f) => f.id === id) && chance(0.95);
      return {
        device: "Runner flaps",
        links: {
          supply: { value: is("flap-line") ? 10 : 18, unit: "inHg", kind: "vacuum" },
          battery: { value: 14, unit: "V" },
          control: { value: is("flap-circuit") ? 0.1 : 13.5, unit: "V" },
          outlet: { value: is("flap-solenoid") ? 1 : 17, unit: "inHg", kind: "vacuum" },
          diaphragm: { start: 18, end: is("flap-diaphragm") || is("flap-pipe") ? 7 : 17.8, seconds: 60, unit: "inHg" },
          shaft: !is("flap-shaft"),
          movement: true,
          plate: !is("flap-plate"),
        },
        instrument: gauge("inHg"),
      };
    },
    borescope: () => {
      const blocked =
        faulty.some((f) => ["ports-coked", "restriction", "exhaust-restriction", "air-ports", "egr-blocked"].includes(f.trait)) &&
        chance(0.93);
      const share = blocked ? 45 : 95;
      return { joint: place, when: "as-found", ports: [{ name: "Port 1", straight: share + 2, side: share }], pictures: [] };
    },
  };
  const read = READERS[candidate.check] ?? pressureReaders({ vehicle, faults, noise, place })[candidate.check];
  if (!read) throw new RangeError(`Nobody knows how to read a ${candidate.check} here`);
  return read();
}
