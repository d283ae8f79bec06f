import { toSi } from "@/core/units";
import type { VehicleFacts } from "@/core/vehicle";
import type { LogDialect } from "./drive";
import type { HiddenEngine } from "./engine";
import type { HiddenTank } from "./tank";

/** A demo car: what the shop knows of it, what is hidden in it, and how its owner's scan tool writes logs. */
export interface DemoCar {
  id: string;
  facts: VehicleFacts;
  engine: HiddenEngine;
  /** The truth of its vapour system, where its job is about that */
  tank?: HiddenTank;
  dialect: LogDialect;
  seed: number;
}

const AMBIENT = 100.6e3;
const TEMPERATURE = 290;

/** Signs of a model year at position 10 of a VIN, from 2001 (ISO 3779) */
const YEARS = "123456789ABCDEFGHJKLMNPRSTVWXY";

/** A VIN of no maker, alike in its first eight signs for cars of one model. */
function madeUpVin(make: string, model: string, year: number, serial: number): string {
  const signs = `${make.slice(0, 2)}${model}`
    .toUpperCase()
    .replace(/[^A-HJ-NPR-Z0-9]/g, "")
    .padEnd(6, "Z");
  return `XZ${signs.slice(0, 6)}0${YEARS[year - 2001] ?? "Z"}Z${String(serial).padStart(6, "0")}`;
}

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
    vin: madeUpVin(make, model, year, seed),
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
      ...(facts.induction === "turbo" ? { boost: facts.maxBoost ? toSi(facts.maxBoost) : 80e3 } : {}),
      diesel: facts.fuel === "diesel",
      banks: facts.banks,
      fuelError: 0.006,
      hole: 0,
      ...hidden,
    },
    dialect,
    seed,
  };
}

/** A car with its vapour system described: what is known of it, and what is hidden in it. */
function vapourCar(
  id: string,
  names: Parameters<typeof car>[1],
  litres: number,
  facts: Partial<NonNullable<VehicleFacts["evap"]>>,
  hidden: Partial<HiddenTank>,
  seed: number,
): DemoCar & { readonly tank: HiddenTank } {
  const evap = {
    monitor: "engine-vacuum",
    market: "strict",
    tank: { value: 50, unit: "L" },
    servicePort: true,
    neck: "cap",
    neckFlap: false,
    tankOneWay: false,
    sensor: { zero: { value: 1.5, unit: "V" }, perUnit: 0.6, unit: "kPa" },
    ...facts,
  } as const;
  return {
    ...car(id, names, litres, { evap }, {}, "comma", seed),
    tank: {
      leaks: [],
      fuelLevel: 45,
      ventShut: 0,
      ventOpen: 9e-3,
      purgeOpen: 0.42e-3,
      purgeShut: 0,
      wallTime: 26,
      ambient: AMBIENT,
      temperature: TEMPERATURE,
      ...hidden,
    },
  };
}

const DIESEL = { fuel: "diesel", induction: "turbo" } as const;
const FILTERED = ["booster", "pcv", "egr", "egr-cooler", "particulate-filter"] as const;

/** Cars whose jobs are about boost, diesels and what comes after the exhaust valve. */
const PRESSURE_SIDE = {
  guillemot: {
    ...car(
      "guillemot-cooler",
      ["Ostrin", "Guillemot 1.8", 2018, "FW 26 GUI", 88900],
      1.8,
      { induction: "turbo", maxBoost: { value: 1.1, unit: "bar", kind: "gauge" } },
      { chargeHole: 6.4e-3 },
      "comma",
      41,
    ),
    charge: { displacement: 1.8e-3, ambient: AMBIENT, breathing: 0.86, compression: 9.8, asks: 1.0e5, makes: 0.86, leak: 6.4e-3 },
  },
  puffin: {
    ...car(
      "puffin-filter",
      ["Druskar", "Puffin 2.0 D", 2015, "FW 63 PUF", 151300],
      2.0,
      { ...DIESEL, fitted: FILTERED, boostWorked: "electric", throttleFlap: true },
      {},
      "comma",
      42,
    ),
    charge: { displacement: 2e-3, ambient: AMBIENT, breathing: 0.88, compression: 16.5, asks: 1.15e5, makes: 0.8, leak: 8e-3 },
    filter: { displacement: 2e-3, ambient: AMBIENT, resistance: 12_200, inertial: 0.14 },
  },
  kittiwake: car(
    "kittiwake-supply",
    ["Velloram", "Kittiwake 1.9 D", 2009, "FW 44 KIT", 203700],
    1.9,
    { ...DIESEL, fitted: ["booster", "pcv", "egr"], boostWorked: "vacuum", egrWorked: "vacuum", throttleFlap: false },
    {},
    "comma",
    43,
  ),
  eider: car(
    "eider-flange",
    ["Ondrell", "Eider 1.4", 2013, "FW 58 EID", 126400],
    1.4,
    {},
    { exhaustHole: 4.4e-3, holeAt: "exhaust-gasket" },
    "comma",
    44,
  ),
  teal: car(
    "teal-seam",
    ["Velloram", "Teal 2.2", 2010, "FW 37 TEA", 139000],
    2.2,
    { fitted: ["booster", "pcv", "evap", "secondary-air"] },
    {},
    "comma",
    45,
  ),
  smew: car(
    "smew-ports",
    ["Ostrin", "Smew 2.4", 2008, "FW 09 SME", 177500],
    2.4,
    { fitted: ["booster", "pcv", "evap", "secondary-air"] },
    {},
    "comma",
    46,
  ),
  scoter: car(
    "scoter-egr",
    ["Druskar", "Scoter 1.6 D", 2013, "FW 71 SCO", 164200],
    1.6,
    { ...DIESEL, fitted: FILTERED, boostWorked: "electric", throttleFlap: true },
    {},
    "comma",
    47,
  ),
  razorbill: car("razorbill-inspection", ["Ondrell", "Razorbill 1.6", 2016, "FW 92 RAZ", 71200], 1.6, {}, {}, "comma", 48),
} as const;

/** Cars of the island; makes, models and plates are invented. */
export const CARS = {
  petrel: car("petrel-lean-idle", ["Ondrell", "Petrel 1.6", 2014, "FW 31 KLT", 118400], 1.6, {}, { hole: 2.0e-3 }, "comma", 11),
  merle: car(
    "merle-boost",
    ["Ostrin", "Merle 1.4", 2016, "FW 07 ABE", 86200],
    1.4,
    { induction: "turbo" },
    { chargeHole: 8e-3 },
    "comma",
    12,
  ),
  dotterel: {
    ...car(
      "dotterel-crack",
      ["Ostrin", "Dotterel 1.5", 2018, "FW 88 DOT", 74100],
      1.5,
      { induction: "turbo", maxBoost: { value: 1.1, unit: "bar", kind: "gauge" } },
      { chargeHole: 7e-3 },
      "comma",
      39,
    ),
    crack: { joint: "cooler-tank", opensAt: 0.42e5, widens: 6e-10 },
  },
  heron: car(
    "heron-one-bank",
    ["Velloram", "Heron 3.0 V6", 2012, "FW 55 ROS", 164900],
    3.0,
    { banks: 2 },
    { hole: 2.4e-3, holeBank: 1, holeAt: "manifold-gasket-2" },
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
  siskin: car("siskin-pcv", ["Ondrell", "Siskin 1.2", 2017, "FW 88 MOR", 64100], 1.2, {}, { hole: 1.8e-3 }, "clock", 15),
  dunlin: car("dunlin-pump", ["Ostrin", "Dunlin 2.4", 2011, "FW 42 HAL", 201500], 2.4, {}, { supplyShort: 0.24 }, "comma", 16),
  knot: car(
    "knot-speed-density",
    ["Velloram", "Knot 1.3", 2010, "FW 60 PEN", 143700],
    1.3,
    { metering: "map" },
    { hole: 2.6e-3 },
    "comma",
    17,
  ),
  whimbrel: car(
    "whimbrel-booster",
    ["Druskar", "Whimbrel 1.8", 2013, "FW 23 DEL", 132800],
    1.8,
    {},
    { hole: 2.8e-3 },
    "comma",
    18,
  ),
  sanderling: car(
    "sanderling-branch",
    ["Ondrell", "Sanderling 1.6", 2013, "FW 14 SND", 127400],
    1.6,
    {},
    { hole: 2.1e-3, holeAt: "vacuum-branch" },
    "comma",
    21,
  ),
  curlew: car(
    "curlew-sections",
    ["Druskar", "Curlew 1.6", 2012, "FW 77 CRL", 158300],
    1.6,
    {},
    { hole: 1.55e-3, holeAt: "manifold-gasket", valvesPass: 1.2e-3 },
    "comma",
    22,
  ),
  godwit: car(
    "godwit-wiggle",
    ["Velloram", "Godwit 2.4", 2014, "FW 36 GOD", 109800],
    2.4,
    { fitted: ["booster", "pcv", "evap", "runner-flaps"] },
    {},
    "comma",
    23,
  ),
  fulmar: car(
    "fulmar-purge",
    ["Ostrin", "Fulmar 1.4", 2016, "FW 48 FUL", 88700],
    1.4,
    {},
    { hole: 1.7e-3, holeAt: "purge-valve" },
    "comma",
    24,
  ),
  tern: car("tern-filter", ["Ondrell", "Tern 2.0", 2015, "FW 62 TRN", 141200], 2.0, {}, {}, "comma", 25),
  redshank: car(
    "redshank-flaps",
    ["Velloram", "Redshank 3.0 V6", 2013, "FW 29 RED", 172600],
    3.0,
    { banks: 2, fitted: ["booster", "pcv", "evap", "runner-flaps"] },
    {},
    "comma",
    26,
  ),
  gannet: car(
    "gannet-diaphragm",
    ["Ostrin", "Gannet 1.8", 2015, "FW 51 GAN", 119900],
    1.8,
    {
      crankcaseBand: {
        low: { value: -8, unit: "hPa", kind: "gauge" },
        high: { value: -1, unit: "hPa", kind: "gauge" },
      },
    },
    { hole: 2.2e-3, holeAt: "pcv-diaphragm" },
    "comma",
    27,
  ),
  skua: car(
    "skua-two-leaks",
    ["Druskar", "Skua 1.8", 2011, "FW 83 SKU", 187500],
    1.8,
    {},
    { hole: 3.0e-3, holeAt: "pcv-hose" },
    "comma",
    28,
  ),
  shearwater: vapourCar(
    "shearwater-canister",
    ["Ondrell", "Shearwater 1.6", 2015, "FW 17 SHW", 98400],
    1.6,
    {},
    { leaks: [{ joint: "canister-joint", diameter: 0.4e-3 }] },
    31,
  ),
  pintail: vapourCar(
    "pintail-neck",
    ["Ostrin", "Pintail 2.0", 2014, "FW 66 PTL", 121700],
    2.0,
    { neckFlap: true, tank: { value: 60, unit: "L" } },
    { leaks: [{ joint: "neck-hose", diameter: 1.2e-3 }] },
    32,
  ),
  avocet: vapourCar(
    "avocet-cold-purge",
    ["Velloram", "Avocet 1.8", 2013, "FW 20 AVO", 139200],
    1.8,
    {},
    { purgeShut: 0.25e-3 },
    33,
  ),
  turnstone: vapourCar(
    "turnstone-port",
    ["Druskar", "Turnstone 1.4", 2016, "FW 91 TUR", 76900],
    1.4,
    { tank: { value: 45, unit: "L" } },
    { leaks: [{ joint: "tank-line", diameter: 0.9e-3 }] },
    34,
  ),
  lapwing: vapourCar(
    "lapwing-two-leaks",
    ["Ondrell", "Lapwing 2.4", 2012, "FW 58 LAP", 164300],
    2.4,
    { tank: { value: 65, unit: "L" } },
    {
      leaks: [
        { joint: "tank-flange", diameter: 1.1e-3 },
        { joint: "purge-line-joint", diameter: 0.8e-3 },
      ],
    },
    35,
  ),
  garganey: vapourCar(
    "garganey-vent",
    ["Ostrin", "Garganey 1.6", 2015, "FW 33 GAR", 104600],
    1.6,
    { servicePort: false },
    { ventShut: 8e-3 },
    36,
  ),
  shelduck: vapourCar(
    "shelduck-cap",
    ["Velloram", "Shelduck 2.0", 2014, "FW 45 SHE", 118800],
    2.0,
    {},
    { leaks: [{ joint: "filler-cap", diameter: 1.4e-3 }] },
    37,
  ),
  wigeon: vapourCar(
    "wigeon-monitor",
    ["Druskar", "Wigeon 1.2", 2017, "FW 72 WIG", 69500],
    1.2,
    { tank: { value: 42, unit: "L" } },
    { leaks: [{ joint: "purge-line-joint", diameter: 0.9e-3 }] },
    38,
  ),
  ...PRESSURE_SIDE,
} as const;

/** The same car after its leak was closed. */
export const repaired = (engine: HiddenEngine): HiddenEngine => {
  const { chargeHole: _, exhaustHole: __, holeBank: ___, holeAt: ____, ...rest } = engine;
  return { ...rest, hole: 0 };
};
