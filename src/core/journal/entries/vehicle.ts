import { type Field, type FormState, formOf, number, type Option, recalling, tick } from "../../form";
import { inSentence } from "../../sentence";
import type { Limit, LimitId } from "../../shop/limits";
import { LIMIT_FIELDS, limitFromShown, shownLimit } from "../../shop/limits";
import {
  airValveWorkedBy,
  asGiven,
  boostWorkedBy,
  egrWorkedBy,
  type FittedSystem,
  TAPPABLE,
  usesCheckDigit,
  type VehicleFacts,
  type VehicleRecord,
  vehicleFacts,
  vehicleFields,
  vehicleName,
  vinCheckDigit,
  vinModelYear,
  WORKED_BY,
  type WorkedBy,
  ZONE_NAMES,
} from "../../vehicle";
import { entryKind } from "./entry-kind";

/** Limits that makers give for an engine; the others are the shop's own business. */
export const MAKERS_LIMITS = [
  "idleSpeed",
  "trimGood",
  "trimAct",
  "vacuumLow",
  "vacuumHigh",
  "idleAir",
  "breathingRestricted",
  "holdLoss",
  "actuatorSupply",
  "filterIdle",
  "filterGood",
  "filterMost",
  "evapCeiling",
  "evapFuelLow",
  "evapFuelHigh",
  "evapSoak",
] as const satisfies readonly LimitId[];
type MakersLimit = (typeof MAKERS_LIMITS)[number];
type LimitName = `limits.${MakersLimit}`;
const perLimit = <T>(of: (id: MakersLimit) => T) =>
  Object.fromEntries(MAKERS_LIMITS.map((id) => [`limits.${id}`, of(id)])) as Record<LimitName, T>;

export interface VehicleFormFacts {
  /** The car as it was described last; what only stands at the commonest is not known */
  readonly vehicle: VehicleRecord | VehicleFacts | undefined;
  /** Who fills the form: a maker's figure carries the name of who entered it */
  readonly by: string;
}

type State<Name extends string> = FormState<unknown, Name>;
const has =
  (system: FittedSystem) =>
  ({ value }: State<"fitted">) => {
    const fitted = value("fitted");
    return Array.isArray(fitted) && fitted.includes(system);
  };
/** Whether systems were named; drafts of earlier builds say no where the list was only the commonest. */
const isNamed = ({ value }: State<"fitted" | "fittedKnown">) =>
  value("fittedKnown") === undefined && ((value("fitted") as readonly string[] | undefined) ?? []).length > 0;
const vinOf = (value: State<"vin">["value"]) => String(value("vin") ?? "");
const isTurbo = ({ value }: State<"induction">) => value("induction") === "turbo";
const isPetrol = ({ value }: State<"fuel">) => value("fuel") !== "diesel";

/** Drive of a device; where nobody says, what its fuel and year mostly have. */
const usually = (usual: (facts: VehicleRecord) => WorkedBy) => ({
  hint: ({ value }: State<"year" | "fuel">) => {
    const year = Number(value("year"));
    const facts = { fuel: value("fuel") === "diesel" ? "diesel" : "petrol", ...(year > 0 ? { year } : {}) } as VehicleRecord;
    return `Usual: ${inSentence(WORKED_BY[usual(facts)])}`;
  },
});

/** Typed limits in SI, each with who entered it; one that was not changed keeps its source. */
function limitsOf(typed: unknown, { vehicle, by }: VehicleFormFacts): Partial<Record<LimitId, Limit>> | undefined {
  const given = Object.entries((typed ?? {}) as Record<LimitId, number>) as [LimitId, number][];
  if (given.length === 0) return undefined;
  return Object.fromEntries(
    given.map(([id, shown]) => {
      const before = vehicle?.limits?.[id];
      const same = before && Number(shownLimit(id, before.value)) === shown;
      return [id, same ? before : { value: limitFromShown(id, shown), source: `maker's figure, entered by ${by}` }];
    }),
  );
}

// The vapour system: nothing of it counts before its tank is known, since everything about it hangs on the volume.
type Evap = State<
  | "fitted"
  | "evap.tank"
  | "evap.monitor"
  | "evap.market"
  | "evap.neck"
  | "evap.servicePort"
  | "evap.neckFlap"
  | "evap.tankOneWay"
  | "evap.requiredLeak"
  | "evap.sensor.zero"
  | "evap.sensor.perUnit"
>;
const isTyped = (value: unknown) => String(value ?? "").trim() !== "";
const hasTank = ({ value }: State<"evap.tank">) => isTyped(value("evap.tank"));
const hasCurve = ({ value }: Evap) => isTyped(value("evap.sensor.zero")) || isTyped(value("evap.sensor.perUnit"));
const DEFAULTS = { "evap.monitor": "engine-vacuum", "evap.market": "strict", "evap.neck": "cap" } as const;
/** Whether anything was said of the system besides its tank. */
const saidMore = (state: Evap) =>
  Object.entries(DEFAULTS).some(([name, usual]) => state.value(name as keyof typeof DEFAULTS) !== usual) ||
  (["evap.servicePort", "evap.neckFlap", "evap.tankOneWay"] as const).some((name) => state.value(name) === true) ||
  isTyped(state.value("evap.requiredLeak")) ||
  hasCurve(state);
const ofEvap = { when: has("evap"), counts: hasTank };
const ofSensor = {
  when: has("evap"),
  counts: (state: Evap) => hasTank(state) && hasCurve(state),
  needed: (state: Evap) =>
    hasTank(state) && hasCurve(state) ? "A sensor's curve needs its volts at zero and its volts per unit" : undefined,
};

/** The facts that change what a reading means: fuel and displacement are enough to begin. */
export const vehicleForm = recalling(
  formOf<VehicleFormFacts>()(vehicleFields, {
    aside: {
      fittedKnown: tick({ label: "That is what is fitted, and no more" }),
      ...perLimit(
        (id): Field<number> =>
          number({
            name: LIMIT_FIELDS[id].name,
            label: `${LIMIT_FIELDS[id].name} (${LIMIT_FIELDS[id].unit})`,
            hint: "Left empty: as the shop has it",
          }),
      ),
    },
    into: perLimit((id) => `limits.${id}` as const),
    ask: {
      vin: {
        hint: ({ value }) => {
          const digit = vinCheckDigit(vinOf(value));
          if (!digit) return undefined;
          if (digit.matches) return "Check digit fits";
          return usesCheckDigit(vinOf(value))
            ? `Check digit should be ${digit.expected}: read the VIN again`
            : `Check digit would be ${digit.expected}; not every market uses it`;
        },
      },
      year: { defaultValue: ({ value }) => vinModelYear(vinOf(value))?.toString() },
      gas: { when: isPetrol },
      ethanol: { when: isPetrol },
      fitted: { counts: (state) => state.value("fittedKnown") === true || isNamed(state) },
      tapped: {
        options: TAPPABLE.map((zone): Option => [zone, ZONE_NAMES[zone]]),
        counts: ({ value }) => Array.isArray(value("tapped")) && (value("tapped") as []).length > 0,
      },
      "evap.tank": {
        when: has("evap"),
        needed: (state) =>
          saidMore(state) ? "Type the tank's volume: without it nothing said of the vapour system counts" : undefined,
      },
      "evap.monitor": ofEvap,
      "evap.market": ofEvap,
      "evap.neck": ofEvap,
      "evap.servicePort": ofEvap,
      "evap.neckFlap": ofEvap,
      "evap.tankOneWay": ofEvap,
      "evap.requiredLeak": ofEvap,
      "evap.sensor.zero": ofSensor,
      "evap.sensor.perUnit": ofSensor,
      "evap.sensor.unit": { when: ofSensor.when, counts: ofSensor.counts },
      "evap.referenceOrifice": {
        when: (state) => has("evap")(state) && state.value("evap.monitor") === "canister-pump",
        counts: hasTank,
      },
      maxBoost: { when: isTurbo },
      boostWorked: { ...usually(boostWorkedBy), when: isTurbo },
      egrWorked: { ...usually(egrWorkedBy), when: has("egr") },
      airValveWorked: { ...usually(airValveWorkedBy), when: has("secondary-air") },
      airPorts: { when: has("secondary-air") },
      throttleFlap: { when: (state) => !isPetrol(state) },
      "crankcaseBand.low": { when: has("pcv") },
      "crankcaseBand.high": { when: has("pcv") },
    },
    computed: {
      // Chosen as a word.
      banks: ({ banks }) => (banks === undefined ? undefined : (Number(banks) as 1 | 2)),
      limits: ({ limits }, { known }) => limitsOf(limits, known),
      // Naming a system says that it is there, and nothing of any other.
      moreFitted: (_, state) => (isNamed(state) && state.value("fittedKnown") !== true ? true : undefined),
    },
    laidOut: {
      banks: ({ banks }) => (banks === undefined ? undefined : String(banks)),
      fittedKnown: ({ fitted, moreFitted }) => (moreFitted ? undefined : fitted !== undefined),
      ...perLimit((id) => ({ limits }: VehicleRecord) => {
        const limit = limits?.[id];
        return limit && Number(shownLimit(id, limit.value));
      }),
    },
  }),
  ({ vehicle }) => vehicle && asGiven(vehicle),
);

export const vehicle = entryKind(vehicleFields, {
  words: (b) => `Vehicle: ${[vehicleName(vehicleFacts(b)), b.registration].filter(Boolean).join(", ")}`,
});
