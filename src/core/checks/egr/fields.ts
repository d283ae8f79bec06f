import { choice, fields, group, quantity, type RecordOf } from "../../form";
import { checkForm } from "../check-form";
import { place, rpm, warm } from "../fields";

const SEATS = { holds: "Nothing comes through", passes: "Smoke comes through", "not-tried": "Not tried" } as const;
/** Where smoke was looked for behind the shut valve: at the tail some comes by valves that overlap, whatever the EGR does. */
const WATCHED = {
  pipe: "At its own pipe, opened behind it",
  "tail-turned": "At the tail, the same after the crank was turned",
  tail: "At the tail",
} as const;
const COOLERS = {
  holds: "Holds its pressure",
  loses: "Loses coolant or pressure",
  "not-tried": "Not tried",
  none: "No cooler",
} as const;

/** Readings of meter and manifold at one command, the speed held. */
const commanded = (state: "shut" | "open", examples: readonly [maf: string, map: string]) =>
  group(
    {
      rpm: rpm({ label: `Commanded ${state}: speed, rpm`, example: "1500", column: `engine speed, EGR ${state}` }),
      maf: quantity("mafFlow", {
        label: `MAF, ${state}`,
        units: ["g/s", "kg/h"],
        example: examples[0],
        column: `MAF flow, EGR ${state}`,
      }).optional(),
      map: quantity("manifold", {
        label: `Manifold pressure, ${state}, absolute`,
        units: ["kPa", "hPa", "psi"],
        example: examples[1],
        column: `manifold pressure, EGR ${state}`,
      }).optional(),
    },
    { point: state === "shut" ? 0 : 1 },
  )
    .rule(
      "read",
      "Type the MAF, the manifold pressure, or both: a duty without a flow says nothing",
      ({ maf, map }) => maf !== undefined || map !== undefined,
    )
    .optional();

/** An EGR valve commanded shut and open at one speed, its seat and its cooler tried. */
export const egrFields = fields({
  joint: place("Valve", "joint", "Say which valve"),
  shut: commanded("shut", ["22", "101"]),
  open: commanded("open", ["14", "102"]),
  /** Smoke or air from the manifold side, valve shut, the exhaust path watched */
  seat: choice(SEATS, { name: "The seat", label: "Seat, by smoke from the manifold" }),
  /** Where that was watched; not said, it was the tail */
  watched: choice(WATCHED, { name: "Where it was watched", label: "Watched", defaultValue: "tail" }).optional(),
  cooler: choice(COOLERS, { name: "The cooler", label: "Its cooler" }),
  warm: warm(),
}).rule(
  "whole",
  "Read it shut and open at one speed: one alone says nothing of the valve",
  ({ shut, open }) => (shut === undefined) === (open === undefined),
);
export type EgrRecord = RecordOf<typeof egrFields>;
export type EgrReading = NonNullable<EgrRecord["shut"]>;

export const egrForm = checkForm(egrFields, {
  ask: {
    watched: {
      hint: ({ value }) =>
        value("seat") === "passes" && value("watched") === "tail"
          ? "Valves of the engine that overlap pass smoke too: turn the crank by hand and look again, or open its pipe"
          : undefined,
      when: ({ value }) => value("seat") === "passes" || value("seat") === "holds",
    },
    cooler: { defaultValue: ({ known }) => (known.context.vehicle.fitted.includes("egr-cooler") ? "not-tried" : "none") },
  },
});
