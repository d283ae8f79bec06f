import * as yup from "yup";
import { answer, choice, type Field, fields, group, marks, number, only, plain, quantity, type RecordOf } from "../form";
import { said } from "../input";
import { type Limit, type LimitId, vehicleLimitsSchema } from "../shop/limits";
import { isQuantity, toSi } from "../units";
import { evapFacts } from "./evap";

export const FITTED_SYSTEMS = [
  "booster",
  "pcv",
  "evap",
  "egr",
  "egr-cooler",
  "low-pressure-egr",
  "particulate-filter",
  "secondary-air",
  "runner-flaps",
  "idle-air",
] as const;
export type FittedSystem = (typeof FITTED_SYSTEMS)[number];

const FITTED_NAMES: Record<FittedSystem, string> = {
  booster: "Brake booster",
  pcv: "Crankcase ventilation",
  evap: "EVAP",
  egr: "EGR",
  "egr-cooler": "EGR cooler",
  "low-pressure-egr": "Low-pressure EGR",
  "particulate-filter": "Particulate filter",
  "secondary-air": "Secondary air",
  "runner-flaps": "Runner flaps",
  "idle-air": "Idle air control valve",
};

/** How a valve, vane or gate is moved: by the vacuum supply, by the boost itself, or by a motor. */
export const WORKED_BY = {
  vacuum: "Vacuum: solenoid, line, diaphragm",
  pressure: "Its own boost: a pipe to the wastegate",
  electric: "A motor",
} as const;
export type WorkedBy = keyof typeof WORKED_BY;
const { pressure: _, ...MOTOR_OR_VACUUM } = WORKED_BY;

/** Zones that a port is tapped into for good where no other way in is big enough. */
export const TAPPABLE = ["metered-duct", "hot-pipe", "cold-pipe", "manifold"] as const;
export type Tappable = (typeof TAPPABLE)[number];

const named = (name: string, label: string, max: number): Field<string, true> =>
  plain<string>(said(name, max)).optional().asked({ type: "text", label });
const UNKNOWN = ["unknown", "Not known yet"] as const;
const OPEN = [...UNKNOWN, "last"] as const;
const worked = <Id extends WorkedBy>(by: Readonly<Record<Id, string>>, label: string) =>
  choice(by, { label, silent: ["usual", "As usual for its year"] }).optional();
const crankcase = (label: string, example: string, missing: string) =>
  quantity("crankcase", { label, units: ["hPa", "mbar", "inH2O"], example, missing });

/** The facts of a vehicle that change what a reading means. It may be known in part: its fuel and displacement, no less. */
export const vehicleFields = fields({
  make: named("Make", "Make", 80),
  model: named("Model", "Model", 80),
  year: number({
    name: "The year",
    label: "Model year",
    integer: "The year is a whole number",
    min: [1900, "The year lies before the first cars with an ECU"],
    max: [2100, "The year lies too far ahead"],
  }).optional(),
  registration: named("Registration", "Registration", 20),
  /** As typed; the check digit is shown, never enforced. */
  vin: named("VIN", "VIN (optional)", 20),
  odometer: quantity("odometer", { label: "Odometer (optional)", units: ["km", "mi"], example: "84200" }).optional(),
  displacement: quantity("displacement", {
    label: "Engine displacement",
    units: ["L", "mL"],
    example: "1.6",
    missing: "Type the engine displacement",
  }),
  fuel: choice({ petrol: "Petrol", diesel: "Diesel" }, { label: "Fuel", missing: "Choose the fuel", defaultValue: "petrol" }),
  /** Gas it runs on besides */
  gas: choice({ lpg: "LPG", cng: "CNG" }, { label: "Second fuel", silent: ["none", "None"] }).optional(),
  /** Share of ethanol in the petrol, % */
  ethanol: number({
    name: "The share of ethanol",
    label: "Ethanol, %",
    bare: "%",
    hint: "Left empty: what pump petrol has",
    wrong: "The share of ethanol is a number in percent",
    min: [0, "The share of ethanol cannot be negative"],
    max: [100, "The share of ethanol cannot be above 100 %"],
  }).optional(),
  induction: choice({ natural: "Naturally aspirated", turbo: "Turbo" }, { label: "Induction", silent: OPEN }).optional(),
  metering: choice({ maf: "Air meter (MAF)", map: "Speed-density (MAP)" }, { label: "Air metering", silent: OPEN }).optional(),
  banks: plain<1 | 2>(yup.number().oneOf([1, 2], "There are one or two banks"))
    .asked({
      type: "choice",
      label: "Banks",
      options: [["1", "One bank"], ["2", "Two banks"], UNKNOWN],
      silent: UNKNOWN[0],
      defaultValue: () => UNKNOWN[0],
    })
    .optional(),
  fitted: marks<FittedSystem>(yup.string().oneOf(FITTED_SYSTEMS).required(), {
    label: "Fitted systems",
    options: FITTED_SYSTEMS.map((id) => [id, FITTED_NAMES[id]]),
    most: 40,
  }).optional(),
  /** Those are fitted; nobody said that they are all */
  moreFitted: only(),
  /** Zones that a port was tapped into for good, to let smoke in by: it stays, plugged */
  tapped: marks<Tappable>(yup.mixed<Tappable>().oneOf(TAPPABLE, "No port is tapped there").required(), {
    label: "A tapped port stays on the car, plugged: it can leak, it is a way in, and the customer is told",
    most: TAPPABLE.length,
  }).optional(),
  evap: evapFacts.optional(),
  /** The most that its turbocharger is asked for, gauge, as the maker has it */
  maxBoost: quantity("boost", {
    label: "Maximum boost, gauge",
    hint: "How high a pressure test may go, and what it must cover",
    units: ["bar", "psi", "kPa"],
    example: "1.1",
  }).optional(),
  /** Drive of its vanes or its wastegate; the usual one of its fuel and year where nobody said */
  boostWorked: worked(WORKED_BY, "What moves the turbo's vanes or wastegate"),
  /** Drive of the valves of exhaust led back and of secondary air, where those are fitted */
  egrWorked: worked(MOTOR_OR_VACUUM, "What moves the EGR valve"),
  airValveWorked: worked(MOTOR_OR_VACUUM, "What opens the air switching valve"),
  /** Ports that secondary air comes out of, behind each switching valve */
  airPorts: number({
    name: "Secondary-air ports",
    label: "Secondary-air ports behind each valve",
    hint: "Then a look at some of them clears no others",
    example: "4",
    wrong: "Secondary-air ports are counted: 3, 4, 8",
    integer: "Secondary-air ports are counted: 3, 4, 8",
    min: [1, "A switching valve has at least one port behind it"],
    max: [32, "No bank has more than 32 secondary-air ports"],
  }).optional(),
  /** A diesel's intake has a flap that its ECU can shut */
  throttleFlap: answer({
    label: "Flap in the intake",
    yes: "Fitted",
    no: "None",
    open: "Not known",
    hint: "Not known: one where a particulate filter is fitted",
  }).optional(),
  /** The maker's band of crankcase pressure at idle, gauge: suction is negative */
  crankcaseBand: group({
    low: crankcase("Crankcase at idle, from (suction is negative)", "-6", "State the lower end of the band"),
    high: crankcase("Crankcase at idle, to", "-1", "State the upper end of the band"),
  })
    .rule(
      "low",
      "The band's lower end is above its upper end: suction is negative",
      ({ low, high }) => !isQuantity(low) || !isQuantity(high) || toSi(low) < toSi(high),
    )
    .optional(),
  /** Limits the maker gives for this vehicle, each with who entered it */
  limits: plain<Readonly<Partial<Record<LimitId, Limit>>>>(vehicleLimitsSchema).optional(),
});

/** A vehicle as somebody described it, in part or whole: what a job keeps. */
export type VehicleRecord = RecordOf<typeof vehicleFields>;

/** Facts that a job can begin without; fuel and displacement it cannot. */
export const OPEN_FACTS = ["induction", "metering", "banks", "fitted"] as const satisfies readonly (keyof VehicleRecord)[];
export type OpenFact = (typeof OPEN_FACTS)[number];

export const FACT_NAMES: Record<OpenFact, string> = {
  induction: "induction",
  metering: "air metering",
  banks: "banks",
  fitted: "fitted systems",
};

/** A vehicle to judge by. */
export type VehicleFacts = Omit<VehicleRecord, OpenFact> & {
  readonly [F in OpenFact]: NonNullable<VehicleRecord[F]>;
} & {
  /** Those nobody gave yet: each stands at the commonest meanwhile */
  readonly unknown?: readonly OpenFact[];
};
