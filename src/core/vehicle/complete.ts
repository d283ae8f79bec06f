import { formatQuantity } from "../units";
import { OPEN_FACTS, type OpenFact, TAPPABLE, type VehicleFacts, type VehicleRecord } from "./facts";
import { commonest } from "./usual";

/** The same facts for the same description, so that what is worked out from them can be kept beside them. */
const completed = new WeakMap<VehicleRecord, VehicleFacts>();

/** A vehicle to judge by: what nobody gave stands at the commonest, and is named as unknown. */
export function vehicleFacts(given: VehicleRecord): VehicleFacts {
  const known = completed.get(given);
  if (known) return known;
  const unknown = OPEN_FACTS.filter((fact) => given[fact] === undefined || (fact === "fitted" && given.moreFitted));
  const usual = commonest(given);
  const more = given.moreFitted ? { fitted: [...new Set([...usual.fitted, ...(given.fitted ?? [])])] } : {};
  const facts = (unknown.length === 0 ? given : { ...usual, ...dropUndefined(given), ...more, unknown }) as VehicleFacts;
  completed.set(given, facts);
  described.set(facts, given);
  return facts;
}

const described = new WeakMap<VehicleFacts, VehicleRecord>();
/** The description that facts were completed from, or the facts without what nobody said. */
export function asGiven(vehicle: VehicleRecord & Pick<VehicleFacts, "unknown">): VehicleRecord {
  const given = described.get(vehicle as VehicleFacts);
  if (given) return given;
  const { unknown = [], ...facts } = vehicle;
  return { ...facts, ...Object.fromEntries(unknown.map((fact) => [fact, undefined])) };
}
const dropUndefined = (given: object) => Object.fromEntries(Object.entries(given).filter(([, v]) => v !== undefined));

const kept = new WeakMap<VehicleRecord, Map<string, VehicleRecord>>();

/** A description with every port that earlier ones tapped: a hole that was drilled does not go away by leaving it out. */
export function withPorts(given: VehicleRecord, earlier: readonly VehicleRecord[]): VehicleRecord {
  const ports = TAPPABLE.filter((zone) => [given, ...earlier].some((e) => e.tapped?.includes(zone)));
  if (ports.every((zone) => given.tapped?.includes(zone))) return given;
  const byPorts = kept.get(given) ?? new Map<string, VehicleRecord>();
  kept.set(given, byPorts);
  const key = ports.join();
  const known = byPorts.get(key) ?? { ...given, tapped: ports };
  byPorts.set(key, known);
  return known;
}

const twoBanks = new WeakMap<VehicleRecord, VehicleRecord>();

/** A description of which nobody said how many banks it has, of an engine that has shown its second. */
export function withSecondBank(given: VehicleRecord): VehicleRecord {
  if (given.banks !== undefined) return given;
  const known = twoBanks.get(given) ?? { ...given, banks: 2 };
  twoBanks.set(given, known);
  return known;
}

/** Whether somebody said so; what stands at the commonest rules nothing out. */
export const isKnown = (vehicle: Pick<VehicleFacts, "unknown">, fact: OpenFact): boolean => !vehicle.unknown?.includes(fact);

/** Name of a vehicle: make, model and year, or what is known instead. */
export function vehicleName({ make, model, year, fuel, displacement }: VehicleFacts): string {
  const name =
    [make, model].filter(Boolean).join(" ") || `${fuel === "diesel" ? "Diesel" : "Petrol"} ${formatQuantity(displacement)}`;
  return year === undefined ? name : `${name} · ${year}`;
}
