import type { VehicleFacts } from "@/core/vehicle";
import type { LogDialect } from "./drive";
import type { HiddenEngine } from "./engine";

/** A demo car: what the shop knows of it, what is hidden in it, and how its owner's scan tool writes logs. */
export interface DemoCar {
  id: string;
  facts: VehicleFacts;
  engine: HiddenEngine;
  dialect: LogDialect;
  seed: number;
}

const AMBIENT = 100.6e3;
const TEMPERATURE = 290;

function car(
  id: string,
  names: [make: string, model: string, year: number, registration: string, km: number],
  litres: number,
  more: Partial<VehicleFacts>,
  hidden: Partial<HiddenEngine>,
  dialect: LogDialect,
  seed: number,
): DemoCar {
  const [make, model, year, registration, km] = names;
  const facts: VehicleFacts = {
    make,
    model,
    year,
    registration,
    odometer: { value: km, unit: "km" },
    fuel: "petrol",
    induction: "natural",
    metering: "maf",
    banks: 1,
    displacement: { value: litres, unit: "L" },
    fitted: ["booster", "pcv", "evap"],
    ...more,
  };
  return {
    id,
    facts,
    engine: {
      displacement: litres * 1e-3,
      ambient: AMBIENT,
      temperature: TEMPERATURE,
      turbo: facts.induction === "turbo",
      banks: facts.banks,
      fuelError: 0.006,
      ...hidden,
    },
    dialect,
    seed,
  };
}

/** Cars of the island; makes, models and plates are invented. */
export const CARS = {
  petrel: car(
    "petrel-lean-idle",
    ["Ondrell", "Petrel 1.6", 2014, "FW 31 KLT", 118400],
    1.6,
    {},
    { manifoldHole: { diameter: 2.0e-3 } },
    "comma",
    11,
  ),
  merle: car(
    "merle-boost",
    ["Ostrin", "Merle 1.4", 2016, "FW 07 ABE", 86200],
    1.4,
    { induction: "turbo" },
    { chargeHole: 6e-3 },
    "comma",
    12,
  ),
  heron: car(
    "heron-one-bank",
    ["Velloram", "Heron 3.0 V6", 2012, "FW 55 ROS", 164900],
    3.0,
    { banks: 2 },
    { manifoldHole: { diameter: 2.4e-3, bank: 1 } },
    "semicolon",
    13,
  ),
  plover: car(
    "plover-meter",
    ["Druskar", "Plover 2.0", 2015, "FW 19 TYN", 97300],
    2.0,
    { fitted: ["booster", "pcv", "evap", "egr"] },
    { fuelError: 0.14 },
    "tab-utf16",
    14,
  ),
  siskin: car(
    "siskin-pcv",
    ["Ondrell", "Siskin 1.2", 2017, "FW 88 MOR", 64100],
    1.2,
    {},
    { manifoldHole: { diameter: 1.8e-3 } },
    "clock",
    15,
  ),
  dunlin: car(
    "dunlin-pump",
    ["Ostrin", "Dunlin 2.4", 2011, "FW 42 HAL", 201500],
    2.4,
    {},
    { supplyLimit: { atFullFlow: 0.24, fullFlow: 45e-3, exponent: 1.6 } },
    "comma",
    16,
  ),
  knot: car(
    "knot-speed-density",
    ["Velloram", "Knot 1.3", 2010, "FW 60 PEN", 143700],
    1.3,
    { metering: "map" },
    { manifoldHole: { diameter: 2.6e-3 } },
    "comma",
    17,
  ),
  whimbrel: car(
    "whimbrel-booster",
    ["Druskar", "Whimbrel 1.8", 2013, "FW 23 DEL", 132800],
    1.8,
    {},
    { manifoldHole: { diameter: 2.8e-3 } },
    "comma",
    18,
  ),
} as const;

/** The same car after its leak was closed. */
export const repaired = (engine: HiddenEngine): HiddenEngine => {
  const { manifoldHole: _, chargeHole: __, ...rest } = engine;
  return rest;
};
