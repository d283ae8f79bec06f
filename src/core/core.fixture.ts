import { type CheckContext, contextOf as contextIn } from "./checks/context";
import type { SmokeRun } from "./checks/smoke";
import { DEFAULT_SHOP, type Shop } from "./shop/settings";
import type { VehicleFacts, VehicleRecord } from "./vehicle";

/** The made-up cars of the tests. */
export const NATURAL: VehicleFacts = {
  make: "Ondrell",
  model: "Petrel 1.6",
  year: 2014,
  registration: "FW 31 KLT",
  fuel: "petrol",
  induction: "natural",
  metering: "maf",
  banks: 1,
  displacement: { value: 1.6, unit: "L" },
  fitted: ["booster", "pcv", "evap"],
};
export const TURBO: VehicleFacts = {
  ...NATURAL,
  make: "Ostrin",
  model: "Merle 1.4",
  registration: "FW 07 ABE",
  induction: "turbo",
  displacement: { value: 1.4, unit: "L" },
  fitted: ["booster", "pcv", "evap", "egr"],
};
export const TWO_BANKS: VehicleFacts = {
  ...NATURAL,
  model: "Heron 3.0 V6",
  banks: 2,
  displacement: { value: 3, unit: "L" },
  fitted: ["booster", "pcv", "evap", "egr", "runner-flaps", "secondary-air"],
};

/** A diesel with a filter, cooled exhaust led back, and a vacuum supply that its turbo's vanes share with the EGR valve. */
export const DIESEL: VehicleFacts = {
  ...NATURAL,
  make: "Druskar",
  model: "Plover 2.0 D",
  registration: "FW 52 DRL",
  fuel: "diesel",
  induction: "turbo",
  displacement: { value: 2, unit: "L" },
  fitted: ["booster", "pcv", "egr", "egr-cooler", "particulate-filter"],
  boostWorked: "vacuum",
  egrWorked: "vacuum",
  throttleFlap: true,
};

/** A car that blows air into the exhaust of its cold engine. */
export const COLD_AIR: VehicleFacts = { ...NATURAL, model: "Kestrel 2.0", fitted: ["booster", "pcv", "evap", "secondary-air"] };

/** A car with its whole vapour system described: service port, cap, engine-vacuum monitor under strict rules. */
export const VAPOUR: VehicleFacts = {
  ...NATURAL,
  model: "Shearwater 1.6",
  evap: {
    monitor: "engine-vacuum",
    market: "strict",
    tank: { value: 50, unit: "L" },
    servicePort: true,
    neck: "cap",
    neckFlap: false,
    tankOneWay: false,
    sensor: { zero: { value: 1.5, unit: "V" }, perUnit: 0.6, unit: "kPa" },
  },
};
/** The same with a neck that a flap seals off from the tank. */
export const SEALED_NECK: VehicleFacts = {
  ...VAPOUR,
  evap: { ...(VAPOUR.evap as NonNullable<VehicleFacts["evap"]>), neckFlap: true },
};

export const contextOf = (vehicle: VehicleRecord, change: Partial<Pick<Shop, "limits" | "house">> = {}): CheckContext =>
  contextIn(vehicle, { ...DEFAULT_SHOP, ...change });

/** A sound smoke run through the duct of `NATURAL`: settles at `flow` L/min and 12.5 inH2O, nothing seen outside. */
export function smokeRun(flow = 4.5, change: Partial<SmokeRun> = {}): SmokeRun {
  const samples = Array.from({ length: 16 }, (_, i): [number, number, number] => {
    const rush = Math.exp(-i / 1.6);
    return [1 + 6 * i, Math.round((flow + (12 - flow) * rush) * 10) / 10, Math.round(12.5 * (1 - rush) * 10) / 10];
  });
  return {
    machine: {
      name: "Fen smoker",
      ratedPressure: { value: 13, unit: "inH2O", kind: "gauge" },
      maxFlow: { value: 12, unit: "L/min" },
      autoOff: 300,
    },
    proof: { pressure: { value: 12.6, unit: "inH2O", kind: "gauge" }, ballAtBottom: true, smokeSeen: true },
    entry: "air-meter",
    blocked: ["tailpipe"],
    heldOpen: ["throttle"],
    heaterOnAt: -60,
    units: { flow: "L/min", pressure: "inH2O" },
    samples,
    arrivals: (["manifold", "crankcase", "breather"] as const).map((zone, i) => ({ zone, at: 30 + 10 * i })),
    seen: [],
    noSmokeOutside: true,
    cameUndone: [],
    touchedBefore: [],
    adapterLeaks: false,
    draughtOrGlare: false,
    zeroed: true,
    ambient: { value: 1013.25, unit: "hPa", kind: "absolute" },
    temperature: { value: 20, unit: "°C" },
    endedAt: 96,
    ...change,
  };
}
