import * as yup from "yup";
import type { MonitorId } from "../../faults";
import { choice, fields, formOf, group, list, plain, type RecordOf, text } from "../../form";
import { entryKind } from "./entry-kind";

export const MONITOR_RESULTS = {
  passed: "Ran and passed",
  failed: "Ran and failed",
  "not-complete": "Has not run yet",
} as const;

/** One value of an on-board monitor (SAE J1979 service 06), with the limits it is held against. */
const value = group({
  name: text({ name: "The value", missing: "Name the value", max: 80 }),
  value: plain<number>(yup.number()),
  min: plain<number>(yup.number()).optional(),
  max: plain<number>(yup.number()).optional(),
  unit: text({ name: "The unit", max: 20 }).optional(),
});

const MONITORS: Readonly<Record<MonitorId, string>> = {
  evap: "EVAP",
  mixture: "Fuel system",
  misfire: "Misfire",
  egr: "EGR",
  "secondary-air": "Secondary air",
  boost: "Boost pressure",
  filter: "Particulate filter",
};

/** Result of one of the car's own monitors said, read from it, with its values where the tool shows them. */
const monitorFields = fields({
  /** Which; the vapour system's where nobody says */
  of: choice(MONITORS, { label: "Which monitor", list: true }).optional(),
  result: choice(MONITOR_RESULTS, {
    label: "What the monitor said",
    missing: "Say what the monitor did",
    wrong: "Say what the monitor did",
  }),
  readBy: text({
    name: "How it was read",
    label: "How it was read",
    example: "readiness complete, no pending code, after 14 km",
    missing: "Say how the monitor was read",
  }),
  values: list(value, { max: 60 }).optional(),
});

export type Monitor = RecordOf<typeof monitorFields>;

/** Values that lie outside their own limits. */
const beyondLimits = ({ values = [] }: Pick<Monitor, "values">): NonNullable<Monitor["values"]> =>
  values.filter((v) => (v.min !== undefined && v.value < v.min) || (v.max !== undefined && v.value > v.max));

/** Result of the monitor by its own values: beyond a limit of its own it has failed, whatever was ticked. */
export const monitorResult = (monitor: Pick<Monitor, "result" | "values">): Monitor["result"] =>
  beyondLimits(monitor).length > 0 ? "failed" : monitor.result;

interface MonitorFacts {
  /** The one that is asked for, where it is not the vapour system's */
  readonly of?: MonitorId;
}

export const monitorForm = formOf<MonitorFacts>()(monitorFields, {
  ask: { of: { when: ({ known }) => known.of !== undefined, defaultValue: ({ known }) => known.of } },
});

/** Whether a line is of the vapour system's monitor. */
export const isOfVapour = ({ of = "evap" }: Pick<Monitor, "of">): boolean => of === "evap";

export const monitor = entryKind(monitorFields, {
  words: (b) => {
    const beyond = beyondLimits(b).map((v) => `${v.name} ${v.value} ${v.unit ?? ""}`.trim());
    return `${MONITORS[b.of ?? "evap"]} monitor: ${MONITOR_RESULTS[monitorResult(b)].toLowerCase()} (${[b.readBy, ...beyond.map((v) => `${v} is beyond its own limit`)].join("; ")})`;
  },
});
