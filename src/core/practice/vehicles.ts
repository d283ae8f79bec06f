import type { Family } from "../faults";
import type { Noise } from "../maths/random";
import type { FittedSystem, VehicleRecord } from "../vehicle";

const NAMES = [
  ["Ondrell", "Petrel"],
  ["Ondrell", "Siskin"],
  ["Ostrin", "Merle"],
  ["Ostrin", "Dotterel"],
  ["Velloram", "Heron"],
  ["Velloram", "Avocet"],
  ["Druskar", "Plover"],
  ["Druskar", "Whimbrel"],
] as const;

/** Made-up cars of a family, as the trade brings them in: enough of them that the same fault is met on different ones. */
export function vehicleFor(family: Family, noise: Noise): VehicleRecord {
  const chance = (p: number) => noise.uniform() < p;
  const [make, model] = NAMES[Math.floor(noise.uniform(0, NAMES.length))] as (typeof NAMES)[number];
  const diesel = family === "filter" || (family === "egr" && chance(0.65)) || (family === "boost" && chance(0.55));
  const litres = Math.round(noise.uniform(diesel ? 14 : 11, diesel ? 24 : 26)) / 10;
  const base = {
    make,
    model,
    year: Math.floor(noise.uniform(2005, 2018)),
    registration: `FS ${Math.floor(noise.uniform(10, 99))} ${Math.floor(noise.uniform(100, 999))}`,
    odometer: { value: Math.round(noise.uniform(60, 240)) * 1000, unit: "km" },
    displacement: { value: litres, unit: "L" },
    metering: "maf",
    banks: 1,
  } as const;
  const kPa = (value: number) => ({ value: Math.round(value), unit: "kPa", kind: "gauge" }) as const;
  if (diesel)
    return {
      ...base,
      fuel: "diesel",
      induction: "turbo",
      maxBoost: kPa(noise.uniform(95, 125)),
      fitted: [
        "booster",
        "pcv",
        "egr",
        "egr-cooler",
        ...(family === "filter" || chance(0.5) ? (["particulate-filter"] as const) : []),
      ],
      boostWorked: chance(0.6) ? "vacuum" : "electric",
      egrWorked: chance(0.5) ? "vacuum" : "electric",
    };
  const turbo = family === "boost" || (family === "engine" && chance(0.25));
  const fitted: FittedSystem[] = [
    "booster",
    "pcv",
    "evap",
    ...(family === "egr" || (family === "engine" && chance(0.35)) ? (["egr"] as const) : []),
    ...(family === "secondary-air" ? (["secondary-air"] as const) : []),
    ...(family === "engine" && chance(0.35) ? (["runner-flaps"] as const) : []),
    ...(family === "engine" && chance(0.2) ? (["idle-air"] as const) : []),
  ];
  return {
    ...base,
    fuel: "petrol",
    induction: turbo ? "turbo" : "natural",
    metering: family === "engine" && chance(0.15) ? "map" : "maf",
    banks: (family === "engine" || family === "secondary-air") && chance(0.2) ? 2 : 1,
    fitted,
    ...(turbo ? { maxBoost: kPa(noise.uniform(70, 95)), boostWorked: chance(0.5) ? "pressure" : "vacuum" } : {}),
    ...(family === "secondary-air" ? { airValveWorked: chance(0.6) ? "vacuum" : "electric" } : {}),
    ...(family === "engine" || chance(0.5)
      ? {
          crankcaseBand: {
            low: { value: -6, unit: "hPa", kind: "gauge" },
            high: { value: -1, unit: "hPa", kind: "gauge" },
          },
        }
      : {}),
    evap: {
      monitor: family === "evap" && chance(0.2) ? "canister-pump" : "engine-vacuum",
      market: "strict",
      tank: { value: Math.round(noise.uniform(40, 65)), unit: "L" },
      servicePort: chance(0.6),
      neck: chance(0.85) ? "cap" : "capless",
      neckFlap: chance(0.2),
      tankOneWay: chance(0.25),
      sensor: { zero: { value: 1.5, unit: "V" }, perUnit: 0.6, unit: "kPa" },
    },
  };
}
