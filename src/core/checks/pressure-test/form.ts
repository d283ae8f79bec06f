import type { Given, Option } from "../../form";
import { EVAP_ZONES, type Joint, placeGroups, reachOf } from "../../vehicle";
import { checkForm, gaugeField, type Known, placeField } from "../known";
import { underBoost } from "./entries";
import { ESCAPE_SIGNS, type PressureTest, pressureTestSchema } from "./record";

const throttleOf = ({ known }: Given<Known>) => known.context.layout.joints.filter((j) => j.kind === "throttle").map((j) => j.id);
const held = (given: Given<Known>) => (given.holds("throttle") === "yes" ? throttleOf(given) : []);
const jointsOf = ({ known }: Given<Known>): readonly Option[] => known.context.layout.joints.map((j): Option => [j.id, j.name]);

/** Places that air may come out at, those under boost first. */
function escapable({ context: { layout } }: Known): readonly Joint[] {
  const places = layout.joints.filter((j) => j.kind !== "engine" && !EVAP_ZONES.includes(j.from));
  return places.toSorted((a, b) => Number(underBoost(b)) - Number(underBoost(a)));
}

/** Ends that the air would leave by, as the way in stands. */
function openEnds(given: Given<Known>): string[] {
  const entry = given.holds("entry");
  const { layout } = given.known.context;
  if (typeof entry !== "string" || !layout.joints.some((j) => j.id === entry)) return [];
  return reachOf(layout, { entry, blocked: [], heldOpen: held(given) }).openEnds.map((j) => j.id);
}

/** The setup that stands in a form, as far as it does. */
export function setupIn(given: Given<Known>): { entry: string; blocked: string[]; heldOpen: string[] } {
  const blocked = given.holds("blocked");
  return {
    entry: String(given.holds("entry") ?? ""),
    blocked: Array.isArray(blocked) ? blocked : [],
    heldOpen: held(given),
  };
}

const rated = (label: string) =>
  ({
    type: "quantity",
    label,
    band: "testPressure",
    unit: "bar",
    units: ["bar", "psi", "kPa"],
    example: "2",
  }) as const;

/** A boost pressure test: setup and ratings, the stops on the way up, what came out where. */
export const pressureTestForm = checkForm<PressureTest>()({
  schema: pressureTestSchema,
  fields: {
    entry: placeField("Air goes in at", "entry"),
    throttle: {
      type: "answer",
      label: "Throttle",
      yes: "Held open",
      no: "Shut",
      holds: () => "no",
      aside: true,
    },
    blocked: { type: "marks", list: true, label: "Plugged, capped or pinched", options: jointsOf, holds: openEnds },
    maxBoost: {
      type: "quantity",
      label: "The engine's maximum boost, gauge",
      hint: ({ known }) => (known.context.vehicle.maxBoost ? "As the vehicle's facts have it" : "Without it nothing is cleared"),
      band: "boost",
      unit: "bar",
      units: ["bar", "psi", "kPa"],
      example: "1.1",
      holds: ({ known: { context } }) => {
        const { maxBoost } = context.vehicle;
        return maxBoost && `${maxBoost.value} ${maxBoost.unit}`;
      },
    },
    "ratings.tool": rated("Adapter and hose are rated for, gauge"),
    "ratings.bladder": rated("Bladder, if one is in, gauge"),
    "ratings.part": rated("Weakest part, if the maker says, gauge"),
    supply: { ...rated("Supply stage stands at, gauge"), band: "supplyPressure", example: "6" },
    steps: {
      type: "rows",
      label: "Stops on the way up",
      blank: {},
      holds: () => [{}],
      fields: {
        pressure: {
          type: "quantity",
          label: "Stop, gauge",
          band: "testPressure",
          unit: "bar",
          units: ["bar", "psi", "kPa"],
          example: "0.3",
        },
      },
    },
    escapes: {
      type: "rows",
      label: "Air came out at",
      blank: {},
      fields: {
        joint: {
          type: "choice",
          list: true,
          label: "Where",
          options: jointsOf,
          groups: ({ known }) => placeGroups(escapable(known), 6),
        },
        sign: { type: "choice", list: true, label: "How it showed", options: Object.entries(ESCAPE_SIGNS) as Option[] },
        from: {
          type: "quantity",
          label: "It began at, gauge",
          band: "testPressure",
          unit: "bar",
          units: ["bar", "psi", "kPa"],
          example: "0.6",
        },
      },
    },
    everywhere: { type: "tick", label: "Every joint was listened to, felt and soaped at the last stop" },
    flow: {
      type: "quantity",
      label: "Air to hold it",
      band: "testFlow",
      unit: "L/min",
      units: ["L/min", "SCFH"],
      example: "40",
    },
    fillTime: { type: "number", label: "Time to fill, s", bare: "s", example: "12" },
    crank: {
      type: "text",
      label: "Where the crank stands",
      hint: "Air and time compare only at one position",
      example: "mark at the pulley, cylinder 1 down",
    },
    instrument: gaugeField("boost"),
  },
  also: (_read, given) => ({ heldOpen: held(given) }),
  keeps: ["into"],
  laidOut: (record) => ({ ...record, throttle: record.heldOpen.length > 0 }),
});
