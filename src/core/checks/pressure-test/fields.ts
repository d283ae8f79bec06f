import {
  answer,
  choice,
  type FormState,
  fields,
  group,
  list,
  number,
  type Option,
  quantity,
  type RecordOf,
  text,
} from "../../form";
import { isQuantity, type Quantity, toSi, type UnitId } from "../../units";
import { EVAP_ZONES, type Joint, placeGroups, reachOf } from "../../vehicle";
import { type CheckFacts, checkForm } from "../check-form";
import { gauge, joint, joints, place, zone } from "../fields";
import { underBoost } from "./entries";

/** How an escape showed itself. */
export const ESCAPE_SIGNS = { heard: "Heard", felt: "Felt", soap: "Soap bubbles", smoke: "Smoke" } as const;
export type EscapeSign = keyof typeof ESCAPE_SIGNS;

const UNITS = ["bar", "psi", "kPa"] as const satisfies readonly UnitId[];
const rating = (label: string, missing?: string) =>
  quantity("testPressure", { label, units: UNITS, example: "2", ...(missing ? { missing } : {}) }).setUp();

const stop = group({
  pressure: quantity("testPressure", {
    label: "Stop, gauge",
    units: UNITS,
    example: "0.3",
    missing: "Type the pressure of this stop",
    column: "boost test, stop",
  }),
});
const escaped = group({
  joint: joint().asked({ type: "choice", list: true, label: "Where" }),
  sign: choice(ESCAPE_SIGNS, { label: "How it showed", missing: "Say how it showed" }),
  from: quantity("testPressure", {
    label: "It began at, gauge",
    units: UNITS,
    example: "0.6",
    missing: "Type the pressure it began at",
  }),
});
type Stop = (typeof stop)["value"];
type Escape = (typeof escaped)["value"];

/** A list, whatever came in its place: what is no list is refused by its own field. */
const listOf = <T>(raw: unknown): readonly T[] => (Array.isArray(raw) ? raw : []);
const readable = (one: Partial<Stop> | undefined): one is Stop => isQuantity(one?.pressure);

/** Air let in after the compressor, raised in steps, with what came out where. Pressures are gauge. */
export const pressureTestFields = fields({
  entry: place("Air goes in at", "entry", "Say where the air goes in"),
  into: zone().optional(),
  blocked: joints({ label: "Plugged, capped or pinched", list: true }).setUp(),
  heldOpen: joints(),
  /** The engine's maximum boost, gauge, where somebody knows it */
  maxBoost: quantity("boost", { label: "The engine's maximum boost, gauge", units: UNITS, example: "1.1" })
    .notGauged()
    .setUp()
    .optional(),
  /** Ratings of what stands under pressure: adapter and hose, bladder, the weakest part */
  ratings: group({
    tool: rating("Adapter and hose are rated for, gauge", "Type what adapter and hose are rated for").equipment(),
    bladder: rating("Bladder, if one is in, gauge").optional(),
    part: rating("Weakest part, if the maker says, gauge").optional(),
  }).notGauged(),
  /** Setting of the regulator's first stage */
  supply: quantity("supplyPressure", { label: "Supply stage set to, gauge", units: UNITS, example: "6" })
    .notGauged()
    .setUp()
    .optional(),
  /** The stops on the way up, each held and listened at */
  steps: list(stop, {
    label: "Stops on the way up",
    blank: {},
    min: [1, "Type the pressure of the first stop"],
    max: [30, "More than 30 stops: keep those where something changed"],
  }).rule("rising", "Each stop is above the one before: type them on the way up", (stops) =>
    (stops as readonly Partial<Stop>[]).every((s, i) => {
      const before = stops[i - 1] as Partial<Stop> | undefined;
      return !before || !readable(s) || !readable(before) || toSi(s.pressure) > toSi(before.pressure);
    }),
  ),
  /** Escapes of air: place, and the pressure it began at */
  escapes: list(escaped, { label: "Air came out at", blank: {}, max: 60 }),
  /** Every joint was listened to, felt and soaped at the last stop */
  everywhere: answer({
    label: "At the last stop",
    yes: "Every joint listened to, felt and soaped",
    no: "Not every joint",
  }).optional(),
  /** Air it took to hold the last stop, or the time until it stood there, s */
  flow: quantity("testFlow", {
    label: "Air to hold it",
    units: ["L/min", "SCFH"],
    example: "40",
    column: "boost test, air to hold it",
  }).optional(),
  fillTime: number({
    name: "The time",
    wrong: "The time is a number of seconds",
    label: "Time to fill, s",
    bare: "s",
    example: "12",
    min: [0, "The time cannot be negative"],
    max: [3600, "The time is longer than an hour"],
  }).optional(),
  /** Where the crank stood: flow and time compare only at one position */
  crank: text({
    name: "The crank's position",
    max: 60,
    label: "Where the crank stands",
    hint: "Air and time compare only at one position",
    example: "mark at the pulley, cylinder 1 down",
  })
    .setUp()
    .optional(),
  instrument: gauge("boost"),
}).rule("whole", "An escape began above the last stop: type the stop, or the pressure it began at", ({ steps, escapes }) => {
  const last = listOf<Stop>(steps).at(-1);
  if (!last || !readable(last)) return true;
  const top = toSi(last.pressure);
  return listOf<Escape>(escapes).every((e) => !isQuantity(e?.from) || toSi(e.from as Quantity) <= top * (1 + 1e-9));
});
export type PressureTest = RecordOf<typeof pressureTestFields>;

type State = FormState<CheckFacts, "throttle" | "entry" | "blocked">;
const throttleOf = ({ known }: { readonly known: CheckFacts }) =>
  known.context.layout.joints.filter((j) => j.kind === "throttle").map((j) => j.id);
const held = (state: State) => (state.value("throttle") === "yes" ? throttleOf(state) : []);
const jointsOf = ({ known }: { readonly known: CheckFacts }): readonly Option[] =>
  known.context.layout.joints.map((j): Option => [j.id, j.name]);

/** Places that air may come out at, those under boost first. */
function escapable({ context: { layout } }: CheckFacts): readonly Joint[] {
  const places = layout.joints.filter((j) => j.kind !== "engine" && !EVAP_ZONES.includes(j.from));
  return places.toSorted((a, b) => Number(underBoost(b)) - Number(underBoost(a)));
}

/** Ends that the air would leave by, as the way in stands. */
function openEnds(state: State): string[] {
  const entry = state.value("entry");
  const { layout } = state.known.context;
  if (typeof entry !== "string" || !layout.joints.some((j) => j.id === entry)) return [];
  return reachOf(layout, { entry, blocked: [], heldOpen: held(state) }).openEnds.map((j) => j.id);
}

/** The setup that stands in a form, as far as it does. */
export function setupIn(state: State): { entry: string; blocked: string[]; heldOpen: string[] } {
  const blocked = state.value("blocked");
  return {
    entry: String(state.value("entry") ?? ""),
    blocked: Array.isArray(blocked) ? blocked : [],
    heldOpen: held(state),
  };
}

/** A boost pressure test: setup and ratings, the stops on the way up, what came out where. */
export const pressureTestForm = checkForm(pressureTestFields, {
  aside: { throttle: answer({ label: "Throttle", yes: "Held open", no: "Shut", defaultValue: "no" }) },
  ask: {
    blocked: { options: jointsOf, defaultValue: openEnds },
    maxBoost: {
      hint: ({ known }) => (known.context.vehicle.maxBoost ? "As the vehicle's facts have it" : "Without it nothing is cleared"),
      defaultValue: ({ known: { context } }) => {
        const { maxBoost } = context.vehicle;
        return maxBoost && `${maxBoost.value} ${maxBoost.unit}`;
      },
    },
    steps: { defaultValue: () => [{}] },
    escapes: { rows: { joint: { options: jointsOf, groups: ({ known }) => placeGroups(escapable(known), 6) } } },
  },
  computed: { heldOpen: (_, state) => held(state) },
  keeps: ["into"],
  laidOut: { throttle: ({ heldOpen }) => heldOpen.length > 0 },
});
