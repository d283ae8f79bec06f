import * as yup from "yup";
import { choice, fields, formOf, group, list, plain, text } from "../../form";
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

/** What the car's own EVAP monitor said, read from it, with its values where the tool shows them. */
const monitorFields = fields({
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

export const monitorForm = formOf<undefined>()(monitorFields);

export const monitor = entryKind(monitorFields, {
  words: (b) => `EVAP monitor: ${MONITOR_RESULTS[b.result].toLowerCase()} (${b.readBy})`,
});
