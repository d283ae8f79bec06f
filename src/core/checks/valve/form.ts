import type { Given } from "../../form";
import { checkForm, gaugeField, type Known, optionsOf, placeField, trappedField } from "../known";
import { POWER_NAMES, POWERS, type ValveRecord, valveSchema } from "./record";

const STATES = { rest: "At rest", energised: "Energised" } as const;

const typed = (which: keyof typeof STATES, label: string) =>
  ({ type: "number", label: `${STATES[which]}: ${label}`, unit: "inHg" }) as const;
/** How long is only asked of a state that was read. */
const watched = (which: keyof typeof STATES, usual: string) =>
  ({
    type: "number",
    label: `${STATES[which]}: After, s`,
    bare: "s",
    holds: () => usual,
    counts: ({ holds }: Given<Known>) => Boolean(holds(`${which}.start`) || holds(`${which}.end`)),
  }) as const;

const times = (what: string) =>
  ({ type: "number", label: ({ holds }: Given<Known>) => `${holds("temperature")}: ${what}, times`, bare: "times" }) as const;

/** A valve in both its states: what was put on, what was left. */
export const valveForm = checkForm<ValveRecord>()({
  schema: valveSchema,
  fields: {
    joint: placeField("Valve"),
    part: {
      type: "choice",
      label: "Which part",
      options: [
        ["fitted", "The one on the car"],
        ["new", "The new one, on the bench"],
      ],
      holds: () => "fitted",
    },
    rests: {
      type: "choice",
      label: "At rest it is",
      options: [
        ["closed", "Closed"],
        ["open", "Open"],
      ],
      holds: ({ known, holds }) => {
        const rest = known.places.find((j) => j.id === holds("joint"))?.rest;
        return rest === "open" ? "open" : "closed";
      },
    },
    temperature: {
      type: "choice",
      label: "Tested",
      options: [
        ["cold", "Cold"],
        ["warm", "Warm"],
      ],
      holds: ({ known }) => (known.warm === undefined ? undefined : known.warm ? "warm" : "cold"),
      hint: ({ known }) => (known.warm === undefined ? undefined : "As the conditions have the engine"),
    },
    power: { type: "choice", label: "Powered by", options: optionsOf(POWERS, POWER_NAMES), holds: () => "scan-tool" },
    unplugged: {
      type: "tick",
      label: "Its plug is off the car's loom: nothing can be fed back into the ECU",
      when: ({ holds }) => holds("power") === "12v",
    },
    "rest.start": typed("rest", "Put on, inHg"),
    "rest.end": typed("rest", "Left, inHg"),
    "rest.seconds": watched("rest", "60"),
    "energised.start": typed("energised", "Put on, inHg"),
    "energised.end": typed("energised", "Left, inHg"),
    "energised.seconds": watched("energised", "5"),
    clicked: { type: "answer", label: "When switched", yes: "It clicks", no: "No click" },
    vents: { type: "answer", label: "Third port, when released", yes: "Lets the vacuum go", no: "Keeps it" },
    cycles: {
      type: "rows",
      label: "Commanded again and again",
      blank: { commanded: "10" },
      optional: true,
      fields: {
        temperature: { type: "taken", label: "While" },
        commanded: times("Commanded"),
        shut: times("Shut"),
        passed: times("Passed"),
        released: times("Released"),
      },
    },
    instrument: gaugeField("vacuum"),
    volume: trappedField,
  },
  also: (read) => ({ unit: "inHg", unplugged: read.unplugged ?? false }),
});
