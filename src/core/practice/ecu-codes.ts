import type { Trait } from "../faults";
import type { CodeRead } from "../journal/entries";
import { toSi } from "../units";
import { type Car, hasTrait, stateAt } from "./car";
import { airArrives, evapMonitor } from "./monitors";

/** Total trim beyond which an ECU calls the mixture out of range, share. */
const OUT_OF_RANGE = 0.105;
/** Boost short or over by so much of what was asked, share of the gauge. */
const BOOST_OFF = 0.14;

/** Secondary air is short below this share of what its pump makes. */
const AIR_SHORT = 0.8;

/** Code of a circuit's monitor for a load that draws no current, by the device. */
const CIRCUITS: Readonly<Record<string, string>> = {
  "flap-circuit": "P2008",
  "boost-circuit": "P0243",
  "egr-circuit": "P0403",
  "purge-circuit": "P0443",
  "vent-circuit": "P0447",
  "pump-circuit": "P0418",
};

const FLAPS = "P2004";
/** Code of a device's monitor when the vacuum that works it does not arrive, by where it is lost. */
const UNWORKED: Readonly<Record<string, string>> = {
  "egr-pipe": "P0400",
  "egr-diaphragm": "P0400",
  "egr-solenoid": "P0400",
  "air-pipe": "P0491",
  "air-diaphragm": "P0491",
  "air-solenoid": "P0491",
  "flap-line": FLAPS,
  "flap-pipe": FLAPS,
  "flap-diaphragm": FLAPS,
  "flap-solenoid": FLAPS,
};

/** Codes of faults that one monitor finds as they are. */
const PLAIN: Partial<Record<Trait, string>> = {
  "device-stuck": "P2004",
  "idle-control": "P0507",
  "boost-sensor": "P0236",
  "egr-cooler-leak": "P2457",
  "filter-loaded": "P2463",
  "filter-broken": "P2002",
  "filter-pipe": "P244A",
  "filter-sensor": "P2453",
  "air-valve-back": "P2440",
  "tank-sensor": "P0451",
  "vent-blocked": "P0446",
  "vent-open": "P0446",
  "purge-blocked": "P0497",
};

/**
 * The codes that an ECU's monitors set on this car once each of them has run: the mixture by its trims, boost and idle by what they come
 * to, the vapour system by the size of its leak, the rest by what each monitor watches. In the order that their monitors run.
 */
export function monitorCodes(car: Car): string[] {
  const { vehicle } = car.context;
  const codes: string[] = [];
  if (vehicle.fuel === "petrol" && vehicle.metering === "maf") {
    const idle = stateAt(car, {});
    const held = stateAt(car, { foot: 2500 });
    const cruise = stateAt(car, { road: { rpm: 2200, map: 0.62 * car.ambient } });
    for (let bank = 0; bank < vehicle.banks; bank++) {
      const worst = Math.max(...[idle, held, cruise].map((s) => s.trims[bank] ?? 0));
      if (worst > OUT_OF_RANGE) codes.push(bank === 0 ? "P0171" : "P0174");
    }
  }
  if (vehicle.fuel === "petrol" && vehicle.metering === "map" && stateAt(car, {}).rpm > 860) codes.push("P0507");
  if (vehicle.induction === "turbo") codes.push(...boostCodes(car));
  if (hasTrait(car, "meter-low", "meter-range", "restriction") && vehicle.metering === "maf") {
    const wide = stateAt(car, { road: { rpm: 3500 } });
    if (wide.meter < 0.8 * wide.air || hasTrait(car, "restriction")) codes.push("P0101");
  }
  codes.push(...vapourCodes(car));
  if (hasTrait(car, "egr-blocked")) codes.push("P0401");
  if (car.faults.some((f) => f.cause.trait === "inside-leak" && f.cause.id !== "bypass-valve") && vehicle.fitted.includes("egr"))
    codes.push("P0402");
  if (vehicle.fitted.includes("secondary-air") && (airArrives(car) < AIR_SHORT || hasTrait(car, "air-valve-stuck", "air-ports")))
    codes.push("P0491");
  for (const { cause } of car.faults) {
    const unworked = UNWORKED[cause.joint ?? ""];
    // The line feeds the flaps where there are any.
    const own =
      CIRCUITS[cause.id] ??
      PLAIN[cause.trait] ??
      (unworked === FLAPS && !vehicle.fitted.includes("runner-flaps") ? undefined : unworked);
    if (own) codes.push(own);
  }
  return [...new Set(codes)];
}

function boostCodes(car: Car): string[] {
  const full = stateAt(car, { road: { rpm: 3200 } });
  const { ambient } = car;
  const most = car.context.vehicle.maxBoost;
  const asked = most ? toSi(most) : 80e3;
  const off = (full.charge - ambient) / asked - 1;
  if (off > BOOST_OFF) return ["P0234"];
  const lost = hasTrait(car, "charge-leak");
  return off < -BOOST_OFF || (lost && lost.size > 0.35) || hasTrait(car, "restriction", "exhaust-restriction") ? ["P0299"] : [];
}

function vapourCodes(car: Car): string[] {
  if (!car.context.vehicle.fitted.includes("evap")) return [];
  const size = evapMonitor(car);
  const leak = size >= 2.5e-3 ? ["P0455"] : size >= 0.9e-3 ? ["P0442"] : size >= 0.45e-3 ? ["P0456"] : [];
  return [...leak, ...(hasTrait(car, "purge-leak") ? ["P0496"] : [])];
}

/** Memory of an ECU. */
export interface EcuMemory {
  readonly codes: readonly CodeRead[];
  /** Stored once, and not seen to pass by their monitor since: no tool clears them */
  readonly permanent: readonly string[];
  /** Every monitor has run since the codes were cleared */
  readonly complete: boolean;
}

/**
 * Codes an ECU holds after what it lived through (SAE J1979, services 03, 07 and 0A): a fault is pending on the first drive that finds it,
 * stored and permanent on the next, and kept until it is cleared; what is permanent goes once its monitor has run and found nothing.
 * @param arrival what it held to begin with.
 */
export function ecuMemory(arrival: readonly CodeRead[], lived: readonly ("cleared" | Car)[]): EcuMemory {
  const frame = arrival.find((c) => c.frame)?.frame;
  const storedIn = (list: readonly CodeRead[]) => list.flatMap((c) => (c.status === "stored" ? [c.code] : []));
  let codes: readonly CodeRead[] = arrival;
  let permanent = storedIn(arrival);
  let complete = true;
  for (const event of lived) {
    if (event === "cleared") {
      codes = [];
      complete = false;
      continue;
    }
    const found = monitorCodes(event);
    const before = new Map(codes.map((c) => [c.code, c.status]));
    codes = [
      ...codes.filter((c) => c.status === "history" || (c.status === "stored" && !found.includes(c.code))),
      ...found.map((code): CodeRead => {
        const known = before.get(code);
        const stored = known === "pending" || known === "stored";
        return { code, status: stored ? "stored" : "pending", ...(stored && frame ? { frame } : {}) };
      }),
    ];
    permanent = [...new Set([...permanent.filter((code) => found.includes(code)), ...storedIn(codes)])];
    complete = true;
  }
  return { codes, permanent, complete };
}
