import type { CheckId } from "@/core/checks";
import type { Cause, Trait } from "@/core/faults";
import type { Noise } from "@/core/maths/random";
import type { Quantity } from "@/core/units";
import type { VehicleFacts } from "@/core/vehicle";

/** What a reader of the pressure side knows of a car: how it is made, not how it is judged. */
export interface Pressed {
  readonly vehicle: VehicleFacts;
  readonly faults: readonly Cause[];
  readonly noise: Noise;
  /** Joint or part that the check is done at */
  readonly place: string;
}

const absolute = (kPa: number): Quantity => ({ value: Math.round(kPa * 10) / 10, unit: "kPa", kind: "absolute" });
const hPa = (value: number): Quantity => ({ value: Math.round(value * 2) / 2, unit: "hPa", kind: "gauge" });
const grams = (value: number): Quantity => ({ value: Math.round(value * 100) / 100, unit: "g/s" });

/** Traits that leave boost short, and how often a log shows it. */
const SHORT: Partial<Record<Trait, number>> = {
  "boost-lazy": 0.92,
  "actuator-leak": 0.75,
  "supply-weak": 0.75,
  "valve-stuck": 0.75,
  "circuit-dead": 0.8,
  restriction: 0.6,
  "inside-leak": 0.5,
};

/** Records of the pressure side's checks, as a technician brings them back from this car. */
export function pressureReaders({ vehicle, faults, noise, place }: Pressed): Partial<Record<CheckId, () => object>> {
  const chance = (p: number) => noise.uniform() < p;
  const has = (trait: Trait) => faults.some((f) => f.trait === trait);
  const at = (f: Cause) => f.joint === place || f.id === place || f.device === place;
  const faulty = faults.filter(at);
  return {
    boost: () => {
      const litres = vehicle.displacement.value;
      const lost = has("charge-leak") ? noise.uniform(0.03, 0.12) : 0;
      const short = faults.some((f) => chance(SHORT[f.trait] ?? 0));
      const over = has("boost-over") && chance(0.9);
      const asks = noise.uniform(70, 110);
      const makes = over ? 1.35 : short ? noise.uniform(0.6, 0.8) : lost > 0.06 && chance(0.6) ? 0.8 : 0.99;
      const held = has("exhaust-restriction") && chance(0.7) ? noise.uniform(0.12, 0.2) : 0;
      const offset = has("boost-sensor") && chance(0.9) ? noise.uniform(4, 9) : 0;
      const base = (vehicle.fuel === "diesel" ? 0.88 : 0.85) + noise.normal(0.03);
      const phase = noise.uniform(0, 6);
      const points = Array.from({ length: 26 }, (_, i) => {
        const under = i % 3 !== 0;
        const rpm = 1400 + ((i * 71 * 7) % 2200);
        const share = under ? 0.5 + ((i * 37) % 50) / 100 : 0;
        const charge = 100.6 + (under ? asks * share * makes : 0);
        const map = charge - 0.4;
        const kelvin = under ? 315 : 300;
        const filling = 1 - ((under ? 1.18 : 104.6 / map) - 1) / (1.4 * 11);
        const breathed =
          (base * (1 + 0.03 * Math.sin(rpm / 600 + phase)) * filling * (1 - held * share) * map * litres * rpm) /
          (0.28705 * kelvin * 120);
        const leak = under ? (lost / (1 - lost)) * breathed * Math.sqrt(Math.max(0, (charge - 100.6) / asks)) : 0;
        return {
          rpm,
          map: absolute(map + noise.normal(0.4)),
          charge: absolute(charge + noise.normal(0.4)),
          ...(under ? { asked: absolute(100.6 + asks * share) } : {}),
          ...(vehicle.metering === "maf" ? { maf: grams((breathed + leak) * (1 + noise.normal(0.006))) } : {}),
          chargeTemperature: { value: Math.round(kelvin - 273.15 + noise.normal(1)), unit: "°C" },
        };
      });
      return {
        source: { kind: "typed" },
        points,
        keyOn: { map: absolute(100.6 + noise.normal(0.3)), charge: absolute(100.6 + offset + noise.normal(0.3)) },
        egr: "shut",
        ambient: { value: 1006, unit: "hPa", kind: "absolute" },
        warm: true,
      };
    },
    filter: () => {
      const pipe = faults.find((f) => f.trait === "filter-pipe");
      const seen = pipe && chance(0.8);
      const held = has("filter-broken")
        ? noise.uniform(0, 2)
        : pipe
          ? noise.uniform(0, 2)
          : has("filter-loaded")
            ? noise.uniform(90, 150)
            : noise.uniform(20, 40);
      const zero = has("filter-sensor") && chance(0.8) ? noise.uniform(4, 12) : noise.normal(0.4);
      return {
        keyOn: hPa(zero),
        idle: { rpm: 800, pressure: hPa(held * 0.18) },
        held: { rpm: 3000, pressure: hPa(held) },
        division: hPa(0.5),
        egr: "shut",
        pipes: seen ? (pipe?.joint === "filter-pipe-front" ? "front-bad" : "rear-bad") : "sound",
        warm: true,
      };
    },
    "secondary-air": () => {
      const leak = faults.find((f) => f.trait === "air-leak");
      const dead = has("air-pump-dead") || faults.some((f) => f.id === "pump-circuit");
      const shut =
        faulty.some((f) => ["air-valve-stuck", "air-ports"].includes(f.trait)) ||
        faults.some((f) => f.joint === "air-pipe" || f.joint === "air-diaphragm" || f.joint === "air-solenoid");
      const blocked = shut && chance(0.93);
      return {
        joint: place,
        runBy: "scan-tool",
        pumped: !(dead && chance(0.96)),
        window: 30,
        rearmed: true,
        engineRunning: true,
        openedBy: faults.some((f) => f.trait === "actuator-leak" || f.trait === "valve-stuck") ? "command" : "hand-vacuum",
        oxygen: blocked || (leak && chance(0.25)) ? "no-change" : "lean",
        watched: blocked ? 12 : 3,
        soaped: true,
        bubbles: leak?.joint && chance(0.92) ? [leak.joint] : [],
        whenShut: faulty.some((f) => f.trait === "air-valve-back") && chance(0.9) ? "pulses" : "quiet",
      };
    },
    egr: () => {
      const stuck =
        faulty.some((f) => ["egr-blocked", "circuit-dead"].includes(f.trait)) ||
        faults.some((f) => ["egr-pipe", "egr-diaphragm", "egr-solenoid"].includes(f.joint ?? ""));
      const shut = noise.uniform(14, 24);
      const taken = stuck && chance(0.93) ? noise.uniform(0, 0.02) : noise.uniform(0.2, 0.4);
      return {
        joint: place,
        shut: { rpm: 1500, maf: grams(shut) },
        open: { rpm: 1505, maf: grams(shut * (1 - taken)) },
        seat: faulty.some((f) => f.trait === "inside-leak") && chance(0.93) ? "passes" : "holds",
        cooler: has("egr-cooler-leak") && chance(0.85) ? "loses" : "not-tried",
        warm: true,
      };
    },
    "back-pressure": () => {
      const high = has("exhaust-restriction") || (has("filter-loaded") && chance(0.6));
      const raised = high ? noise.uniform(26, 60) : noise.uniform(3, 12);
      const kPa = (value: number): Quantity => ({ value: Math.round(value * 10) / 10, unit: "kPa", kind: "gauge" });
      return {
        idle: kPa(raised / 4),
        raised: kPa(raised),
        snap: kPa(raised * 1.6),
        warm: true,
        instrument: { name: "Gauge", division: { value: 0.2, unit: "kPa" }, zero: { value: 0, unit: "kPa" } },
      };
    },
    "exhaust-gas": () => {
      const thinned = has("exhaust-air") && chance(0.85) ? noise.uniform(0.06, 0.14) : 0;
      const unburnt = has("engine-mechanical") && chance(0.4);
      const rich = has("purge-leak") && chance(0.35);
      const gas = (air: number) => ({
        co: unburnt ? 2 : rich ? 2.6 : 0.08,
        co2: unburnt ? 12 : rich ? 13 : Math.round(150 * (1 - air)) / 10,
        o2: unburnt ? 2.6 : Math.round((0.12 + 20.9 * air) * 100) / 100,
        hc: unburnt ? 700 : 30,
        ecuLambda: rich ? 0.92 : 1,
      });
      return {
        fuel: "petrol",
        idle: gas(thinned),
        raised: gas(thinned / 3),
        loop: "closed",
        probe: "deep",
        zeroed: true,
        warm: true,
      };
    },
  };
}

const DIESEL = { fuel: "diesel", induction: "turbo" } as const;
type Kind = "boost" | "filter" | "secondary-air" | "egr";
export const KINDS: readonly Kind[] = ["boost", "filter", "secondary-air", "egr"];

/** A vehicle of a family, as the trade brings it in. */
export function pressedVehicle(kind: Kind, noise: Noise): VehicleFacts {
  const chance = (p: number) => noise.uniform() < p;
  const diesel = kind === "filter" || kind === "egr" ? chance(kind === "filter" ? 1 : 0.7) : kind === "boost" && chance(0.6);
  const base = {
    make: "Ondrell",
    model: "Petrel",
    year: 2011,
    registration: "FW 00",
    metering: "maf" as const,
    banks: 1 as const,
    displacement: { value: Math.round(noise.uniform(12, 26)) / 10, unit: "L" as const },
  };
  if (diesel)
    return {
      ...base,
      ...DIESEL,
      fitted: [
        "booster",
        "pcv",
        "egr",
        "egr-cooler",
        ...(kind === "filter" || chance(0.5) ? (["particulate-filter"] as const) : []),
      ],
      boostWorked: chance(0.6) ? "vacuum" : "electric",
      egrWorked: chance(0.5) ? "vacuum" : "electric",
    };
  return {
    ...base,
    fuel: "petrol",
    induction: kind === "boost" ? "turbo" : "natural",
    fitted: [
      "booster",
      "pcv",
      "evap",
      ...(kind === "secondary-air" ? (["secondary-air"] as const) : []),
      ...(kind === "egr" ? (["egr"] as const) : []),
    ],
    ...(kind === "boost" ? { boostWorked: chance(0.5) ? "pressure" : "vacuum" } : {}),
    ...(kind === "secondary-air" ? { airValveWorked: chance(0.6) ? "vacuum" : "electric" } : {}),
  } as VehicleFacts;
}

/** The code that a family's ECU stores for a fault, as often as cars bring it. */
export function codeOf(kind: Kind, { trait, id }: Cause, noise: Noise): string | undefined {
  const chance = (p: number) => noise.uniform() < p;
  switch (kind) {
    case "boost":
      if (trait === "boost-over") return chance(0.8) ? "P0234" : "P0299";
      if (trait === "boost-sensor") return chance(0.7) ? "P0236" : "P0299";
      if (trait === "circuit-dead") return chance(0.7) ? "P0243" : "P0299";
      return "P0299";
    case "filter":
      if (trait === "filter-sensor") return chance(0.65) ? "P2453" : "P2463";
      if (trait === "filter-broken") return "P2002";
      if (trait === "filter-pipe") return chance(0.6) ? "P244A" : "P2463";
      return "P2463";
    case "secondary-air":
      if (trait === "circuit-dead") return chance(0.6) ? "P0418" : "P0491";
      if (trait === "air-valve-back") return chance(0.6) ? "P2440" : "P0491";
      return "P0491";
    case "egr":
      if (trait === "inside-leak") return "P0402";
      if (trait === "circuit-dead") return "P0403";
      if (trait === "egr-cooler-leak") return chance(0.6) ? "P2457" : "P0401";
      return id === "egr-blocked" ? "P0401" : "P0400";
  }
}
