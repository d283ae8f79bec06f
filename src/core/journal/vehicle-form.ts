import { type Field, formOf, type Given, type Option, recalling } from "../form";
import { inSentence } from "../sentence";
import { LIMIT_FIELDS, limitFromShown, shownLimit } from "../shop/limit-fields";
import type { Limit, LimitId } from "../shop/settings";
import {
  airValveWorkedBy,
  boostWorkedBy,
  egrWorkedBy,
  FITTED_NAMES,
  FITTED_SYSTEMS,
  type FittedSystem,
  type GivenFacts,
  TAPPABLE,
  type VehicleFacts,
  vehicleSchema,
  vinCheckDigit,
  WORKED_BY,
  type WorkedBy,
  ZONE_NAMES,
} from "../vehicle";
import { displacementField, fuelField } from "./engine-fields";
import { evapFields } from "./evap-form";

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

export interface KnownOfVehicle {
  /** The car as it was described last; what only stands at the commonest is not known */
  readonly vehicle: GivenFacts | VehicleFacts | undefined;
  /** Who fills the form: a maker's figure carries the name of who entered it */
  readonly by: string;
}

const has = (system: FittedSystem) => (given: Given<KnownOfVehicle>) => {
  const fitted = given.holds("fitted");
  return Array.isArray(fitted) && fitted.includes(system);
};

const UNKNOWN: Option = ["unknown", "Not known yet"];

const USUAL: Option = ["usual", "As usual for its year"];
const WORKED: Record<WorkedBy, string> = {
  vacuum: "Vacuum: solenoid, line, diaphragm",
  pressure: "Its own boost: a pipe to the wastegate",
  electric: "A motor",
};
/** What moves a device; where nobody says, what its fuel and year mostly have. */
const workedField = (
  label: string,
  by: readonly WorkedBy[],
  usual: (facts: GivenFacts) => WorkedBy,
  when: (given: Given<KnownOfVehicle>) => boolean,
): Field<KnownOfVehicle> => ({
  type: "choice",
  label,
  options: [USUAL, ...by.map((one): Option => [one, WORKED[one]])],
  silent: USUAL[0],
  holds: () => USUAL[0],
  hint: ({ holds }) => {
    const year = Number(holds("year"));
    const facts = { fuel: holds("fuel") === "diesel" ? "diesel" : "petrol", ...(year > 0 ? { year } : {}) } as GivenFacts;
    return `Usual: ${inSentence(WORKED[usual(facts)])}`;
  },
  when,
});
const isTurbo = ({ holds }: Given<KnownOfVehicle>) => holds("induction") === "turbo";
const isDiesel = ({ holds }: Given<KnownOfVehicle>) => holds("fuel") === "diesel";

const crankcase = (label: string, example: string): Field<KnownOfVehicle> => ({
  type: "quantity",
  label,
  band: "crankcase",
  unit: "hPa",
  units: ["hPa", "mbar", "inH2O"],
  example,
  when: has("pcv"),
});

const limitField = (id: MakersLimit): Field<KnownOfVehicle> => ({
  type: "number",
  label: `${LIMIT_FIELDS[id].name} (${LIMIT_FIELDS[id].unit})`,
  hint: "Left empty: as the shop has it",
});
const limitFields = Object.fromEntries(MAKERS_LIMITS.map((id) => [`limits.${id}`, limitField(id)])) as Record<
  `limits.${MakersLimit}`,
  Field<KnownOfVehicle>
>;

/** A description as its fields see it: banks as a word, limits in the unit they are typed in. */
const laidOut = ({ unknown = [], ...facts }: GivenFacts & Pick<VehicleFacts, "unknown">): object => {
  const vehicle: GivenFacts = { ...facts, ...Object.fromEntries(unknown.map((fact) => [fact, undefined])) };
  return {
    ...vehicle,
    ...(vehicle.banks === undefined ? {} : { banks: String(vehicle.banks) }),
    fittedKnown: vehicle.fitted !== undefined,
    limits: Object.fromEntries(
      Object.entries(vehicle.limits ?? {}).map(([id, limit]) => [id, Number(shownLimit(id as LimitId, limit.value))]),
    ),
  };
};

/** Typed limits in SI, each with who entered it; one that was not changed keeps its source. */
function limitsOf(typed: unknown, { vehicle, by }: KnownOfVehicle): { limits?: Partial<Record<LimitId, Limit>> } {
  const given = Object.entries((typed ?? {}) as Record<LimitId, number>) as [LimitId, number][];
  if (given.length === 0) return {};
  return {
    limits: Object.fromEntries(
      given.map(([id, shown]) => {
        const before = vehicle?.limits?.[id];
        const same = before && Number(shownLimit(id, before.value)) === shown;
        return [id, same ? before : { value: limitFromShown(id, shown), source: `maker's figure, entered by ${by}` }];
      }),
    ),
  };
}

/** The facts that change what a reading means: fuel and displacement are enough to begin. */
export const vehicleForm = formOf<GivenFacts, KnownOfVehicle>()({
  schema: vehicleSchema,
  fields: recalling(({ vehicle }) => vehicle && laidOut(vehicle), {
    make: { type: "text", label: "Make" },
    model: { type: "text", label: "Model" },
    year: { type: "number", label: "Model year" },
    registration: { type: "text", label: "Registration" },
    vin: {
      type: "text",
      label: "VIN (optional)",
      hint: ({ holds }) => {
        const digit = vinCheckDigit(String(holds("vin") ?? ""));
        if (!digit) return undefined;
        return digit.matches ? "Check digit fits" : `Check digit would be ${digit.expected}; not every market uses it`;
      },
    },
    odometer: {
      type: "quantity",
      label: "Odometer (optional)",
      band: "odometer",
      unit: "km",
      units: ["km", "mi"],
      example: "84200",
    },
    displacement: displacementField,
    fuel: fuelField,
    gas: {
      type: "choice",
      label: "Gas besides",
      options: [
        ["none", "None"],
        ["lpg", "LPG"],
        ["cng", "CNG"],
      ],
      silent: "none",
      holds: () => "none",
      when: (given) => !isDiesel(given),
    },
    ethanol: {
      type: "number",
      label: "Ethanol in its petrol, %",
      bare: "%",
      hint: "Left empty: what pump petrol has",
      when: (given) => !isDiesel(given),
    },
    induction: {
      type: "choice",
      label: "Induction",
      options: [["natural", "Natural"], ["turbo", "Turbo"], UNKNOWN],
      silent: UNKNOWN[0],
      holds: () => UNKNOWN[0],
    },
    metering: {
      type: "choice",
      label: "Air metering",
      options: [["maf", "Air meter (MAF)"], ["map", "Speed-density (MAP)"], UNKNOWN],
      silent: UNKNOWN[0],
      holds: () => UNKNOWN[0],
    },
    banks: {
      type: "choice",
      label: "Banks",
      options: [["1", "One bank"], ["2", "Two banks"], UNKNOWN],
      silent: UNKNOWN[0],
      holds: () => UNKNOWN[0],
    },
    fitted: {
      type: "marks",
      label: "Fitted systems",
      options: FITTED_SYSTEMS.map((s): Option => [s, FITTED_NAMES[s]]),
      counts: ({ holds }) => holds("fittedKnown") === true,
    },
    fittedKnown: { type: "tick", label: "That is what is fitted, and no more", aside: true },
    tapped: {
      type: "marks",
      label: "A tapped port stays on the car, plugged: it can leak, it is a way in, and the customer is told",
      options: TAPPABLE.map((zone): Option => [zone, ZONE_NAMES[zone]]),
      counts: ({ holds }) => Array.isArray(holds("tapped")) && (holds("tapped") as []).length > 0,
    },
    ...evapFields<KnownOfVehicle>(has("evap")),
    maxBoost: {
      type: "quantity",
      label: "Maximum boost, gauge",
      hint: "How high a pressure test may go, and what it must cover",
      band: "boost",
      unit: "bar",
      units: ["bar", "psi", "kPa"],
      example: "1.1",
      when: isTurbo,
    },
    boostWorked: workedField("What moves the turbo's vanes or wastegate", WORKED_BY, boostWorkedBy, isTurbo),
    egrWorked: workedField("What moves the EGR valve", ["vacuum", "electric"], egrWorkedBy, has("egr")),
    airValveWorked: workedField(
      "What opens the air switching valve",
      ["vacuum", "electric"],
      airValveWorkedBy,
      has("secondary-air"),
    ),
    airPorts: {
      type: "number",
      label: "Secondary-air ports behind each valve",
      hint: "Then a look at some of them clears no others",
      example: "4",
      when: has("secondary-air"),
    },
    throttleFlap: {
      type: "answer",
      label: "Flap in the intake",
      yes: "Fitted",
      no: "None",
      open: "Not known",
      hint: "Not known: one where a particulate filter is fitted",
      when: isDiesel,
    },
    "crankcaseBand.low": crankcase("Crankcase at idle, from (suction is negative)", "-6"),
    "crankcaseBand.high": crankcase("Crankcase at idle, to", "-1"),
    ...limitFields,
  }),
  also: (read, { known }) => ({
    ...(read.banks === undefined ? {} : { banks: Number(read.banks) }),
    ...limitsOf(read.limits, known),
  }),
});
