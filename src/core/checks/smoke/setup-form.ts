import { answer, choice, type Draft, type FormState, fields, formOf, type Option, quantity, text, tick } from "../../form";
import type { Limits } from "../../shop/limits";
import type { Machine } from "../../shop/settings";
import { type Circuit, EVAP_ZONES, hoseEnds, type Layout, sidesOf, type ZoneId } from "../../vehicle";
import { fuelLevel } from "../evap-fields";
import { joint, joints, zone } from "../fields";

/** Everything that a run's set-up and its machine's proof need not ask. */
export interface SmokeSetupFacts {
  readonly layout: Layout;
  readonly circuit: Circuit;
  readonly machines: readonly Pick<Machine, "id" | "name">[];
  readonly machine: Machine;
  /** Whether the fill gets at the engine's own valves */
  readonly throughEngine: boolean;
  readonly context: { readonly limits: Limits };
  /** Drawback of the way in that is chosen */
  readonly price?: string | undefined;
  /** Pressure that the machine must come up to, and how that is said */
  readonly full: { readonly value: number; readonly says: string };
}

const setupFields = fields({
  machineId: text({ name: "The machine" }).asked({ type: "choice", list: true, label: "Smoke machine" }).optional(),
  entry: joint().asked({ type: "choice", list: true, label: "Let smoke in at" }),
  into: zone().asked({ type: "choice", label: "Into which side" }).optional(),
  blocked: joints({ label: "Sealed by plug, bladder, cone or clamp" }),
  /** Of a vapour system, beside what keeps its vent shut */
  pinched: joints({ label: "Hose pinched or plugged, to test a part of the system" }).optional(),
  heldOpen: joints({ label: "Held open for the whole run" }),
  crank: text({
    name: "The crank's position",
    max: 60,
    label: "Where the crank stands, if you set it",
    example: "cylinder 1 at top dead centre",
    hint: "Runs of sections compare only at one crank position",
  }).optional(),
  vent: choice({ command: "Scan-tool command", plug: "A plug by hand" }, { label: "Vent kept shut by" }),
  fuelLevel: fuelLevel(),
  hotTank: tick({ label: "The tank is hot to the hand" }).optional(),
  zeroed: answer({
    label: "Gauge and ball, machine off the car",
    yes: "Stand at zero",
    no: "Do not",
    missing: "whether gauge and ball stand at zero",
  }),
  /** Of a machine that is stronger than a vapour system bears */
  regulated: quantity("ratedPressure", {
    label: "Regulated to, hose clamped",
    units: ["psi", "inH2O", "mbar", "kPa"],
    example: "0.45",
  }).optional(),
  proofPressure: quantity("smokePressure", {
    label: "Pressure with the hose clamped",
    units: ["inH2O", "psi", "mbar", "kPa"],
    example: "13",
  }),
  ballAtBottom: answer({ label: "The ball, hose clamped", yes: "Sat at the bottom", no: "Did not" }),
  smokeSeen: answer({ label: "Smoke out of the open hose", yes: "Came", no: "Did not" }),
});

type State = FormState<SmokeSetupFacts, "entry">;
const ends = ({ known }: Pick<State, "known">) => hoseEnds(known.layout, known.circuit);
const option = (j: ReturnType<typeof hoseEnds>[number]): Option => [j.id, `${j.name} (${j.end?.removes})`];
const sides = ({ known, value }: State): readonly ZoneId[] => {
  const at = ends({ known }).find((j) => j.id === value("entry"));
  return at ? sidesOf(known.layout, at) : [];
};
const zoneName = ({ layout }: SmokeSetupFacts, id: ZoneId) => layout.zones.find((z) => z.id === id)?.name ?? id;
const inUnitOf = ({ known }: Pick<State, "known">) => known.machine.ratedPressure.unit;

/** Where smoke goes in, what is sealed and held open, and what the machine showed with its hose clamped and open. */
export const smokeSetupForm = formOf<SmokeSetupFacts>()(setupFields, {
  ask: {
    machineId: {
      when: ({ known }) => known.machines.length > 0,
      options: ({ known }) => known.machines.map((m): Option => [m.id, m.name]),
      defaultValue: ({ known }) => known.machine.id,
    },
    entry: {
      options: (state) => ends(state).map(option),
      groups: (state) => [["Any other hose's end", ends(state).flatMap((j): Option[] => (j.end?.usual ? [] : [option(j)]))]],
      hint: ({ known }) => known.price && `Drawback: ${known.price}`,
    },
    into: {
      when: (state) => sides(state).length > 1,
      options: (state) => sides(state).map((zone): Option => [zone, zoneName(state.known, zone)]),
      defaultValue: (state) => sides(state)[0],
    },
    blocked: {
      options: ({ known }) =>
        known.layout.joints
          .filter((j) => j.kind === "opening" || j.kind === "valve" || j.kind === "pipe")
          .map((j): Option => [j.id, j.name]),
    },
    pinched: {
      when: ({ known }) => known.circuit === "evap",
      options: ({ known }) =>
        known.layout.joints
          .filter((j) => EVAP_ZONES.includes(j.from) && (j.kind === "pipe" || j.kind === "valve") && !VENT.includes(j.id))
          .map((j): Option => [j.id, j.name]),
      hint: ({ value }) =>
        value("entry") === "filler-cap"
          ? "From the neck, the pinch says how far the test goes: nothing beyond it is tested"
          : undefined,
    },
    heldOpen: {
      options: ({ known }) =>
        known.layout.joints
          .filter((j) => j.rest === "closed" && (j.kind === "throttle" || j.kind === "valve"))
          .map((j): Option => [j.id, j.name]),
    },
    crank: { when: ({ known }) => known.throughEngine },
    regulated: { unit: inUnitOf },
    proofPressure: {
      when: ({ known }) => known.machine.kind !== "plain",
      unit: inUnitOf,
      example: ({ known }) => String(known.full.value),
      hint: ({ known }) => known.full.says,
    },
    ballAtBottom: { when: ({ known }) => known.machine.kind !== "plain" },
  },
});
/** Joints that keep the vent shut; the question of the vent answers for them. */
const VENT: readonly string[] = ["vent-valve", "vent-filter"];
/** The joint that keeps the vent shut, by hand or by command. */
const ventBlock = (vent: "command" | "plug") => (vent === "command" ? "vent-valve" : "vent-filter");
/** A vapour system's blocked joints: what keeps the vent shut, and what is pinched. */
export const vapourBlocks = (vent: "command" | "plug", pinched: readonly string[] = []): readonly string[] => [
  ventBlock(vent),
  ...pinched.filter((id) => !VENT.includes(id)),
];
export const pinchedOf = (blocked: readonly string[]): readonly string[] => blocked.filter((id) => !VENT.includes(id));

/** Answers of a run's draft, which keeps them as it records them. */
const ANSWERS: readonly string[] = ["zeroed", "ballAtBottom", "smokeSeen"];

/** A run's draft as its form shows it. */
export const asTyped = (draft: object): Draft =>
  Object.fromEntries(
    Object.entries(draft).map(([name, value]) => [
      name,
      ANSWERS.includes(name) && typeof value === "boolean" ? (value ? "yes" : "no") : value,
    ]),
  );

/** A field of the form as the draft keeps it. */
export const asKept = (name: string, value: unknown): object => ({ [name]: ANSWERS.includes(name) ? value === "yes" : value });
