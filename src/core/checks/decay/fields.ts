import { choice, type FormState, fields, group, number, type Option, quantity, type RecordOf, taken, tick } from "../../form";
import { entriesOf, type FillSetup, usualSetup } from "../../vehicle";
import { type CheckFacts, checkForm } from "../check-form";
import { askVent, evapSetup, ventOf } from "../evap-fields";
import { entryPrice, preferredEntry } from "../evap-smoke/plan";
import { duration, gauge, inUnit, pressureUnit, samples, source } from "../fields";
import { samplesAgain, takenSamples } from "../samples";

const FEWEST = 4;
const fall = (column: string) =>
  samples({
    atLeast: [FEWEST, `A decay needs at least ${FEWEST} readings; note the pressure every few seconds`],
    column,
    kind: "gauge",
  });
const pressure = (name: string, missing: string) =>
  number({
    name,
    gauged: true,
    min: [-1e5, `${name} is below what a gauge shows`],
    max: [1e6, `${name} is above what a gauge shows`],
    missing,
  });

/** A shut-off EVAP system watched while its pressure falls, with or without a known hole opened for a second run. */
export const decayFields = fields({
  ...evapSetup,
  entry: evapSetup.entry.asked({ type: "choice", list: true, label: "Pressure goes in at" }),
  touchedBefore: evapSetup.touchedBefore.asked({ label: "Tightened or touched before the test" }),
  adapterLeaks: evapSetup.adapterLeaks.asked({ label: "The adapter leaked at its own seal" }),
  /** Unit of the gauge pressures */
  unit: pressureUnit(["inH2O", "Pa", "mbar", "psi"], { label: "Unit of the gauge", defaultValue: "inH2O" }),
  /** What was pressed in; air where nobody said */
  gas: choice(
    { air: "Air", nitrogen: "Nitrogen", "carbon-dioxide": "CO₂" },
    { label: "Test gas", hint: "CO₂ leaks out slower than air, so a hole looks smaller than it is. Left empty: air" },
  )
    .equipment()
    .optional(),
  /** The shut system before it was pushed: gauge pressure at the start and end of so many seconds */
  vapourRise: group({
    start: pressure("The start", "Type the pressure at the start"),
    end: pressure("The end", "Type the pressure at the end"),
    seconds: duration("The time", { label: "After, s", defaultValue: "120" }),
  }).optional(),
  /** s at pressure before the supply was shut; absent when nobody timed it */
  held: duration("The hold", { label: "Held before shut-off, s" }).optional(),
  /** [s since shut-off, gauge pressure] */
  samples: fall("decay pressure"),
  reference: group({
    diameter: quantity("hole", {
      label: "Reference hole",
      units: ["mm", "in", "thou"],
      example: "0.508",
      defaultValue: "0.508 mm",
      missing: "State the reference hole",
    }),
    samples: fall("decay pressure, reference hole open"),
  }).optional(),
  instrument: gauge("lowPressure"),
  /** Gas space, where it is known better than by fuel level */
  volume: quantity("volume", {
    label: "Gas space, where it is known better than by fuel level",
    units: ["L"],
    example: "33",
  }).optional(),
  source: source(),
});
export type DecayRecord = RecordOf<typeof decayFields>;

type State = FormState<CheckFacts, "entry" | "vent.by">;
/** The system as it is entered here: what is blocked, what is held open. */
export function decaySetup({ known, value }: State): FillSetup {
  const setup = usualSetup(known.context.layout, String(value("entry") ?? ""));
  return { ...setup, blocked: [value("vent.by") === "command" ? "vent-valve" : "vent-filter"] };
}

const withRise = ({ value }: FormState<unknown, "vapourRise.end">) => Boolean(value("vapourRise.end"));
const referred = ({ value }: FormState<unknown, "byReference">) => value("byReference") === true;
const entries = ({ known }: { readonly known: CheckFacts }) => entriesOf(known.context.layout, "evap");

/** Hold, shut off, watch it fall: by volume, and with a reference hole open for a second run. */
export const decayForm = checkForm(decayFields, {
  aside: {
    /** s on the record's clock, where it is corrected */
    "vent.at": taken("Vent commanded at"),
    /** ms since 1970 of the vent's command */
    ventAt: taken("Vent commanded"),
    hotTank: tick({ label: "The tank is warm to the hand" }),
    /** ms since 1970 when the hold began */
    holdFrom: taken("Hold began"),
    alone: taken("Decay"),
    byReference: tick({ label: "Once more with a reference hole open: it takes volume and yielding walls out" }),
    again: taken("With the reference hole"),
  },
  at: { alone: "samples", again: "reference.samples" },
  ask: {
    entry: {
      options: (state) => entries(state).map((j): Option => [j.id, j.name]),
      defaultValue: ({ known }) => preferredEntry(known.context),
      hint: (state) => {
        const entry = entries(state).find((j) => j.id === state.value("entry"));
        return entry && `Drawback: ${entryPrice(entry)}`;
      },
    },
    ...askVent("plug"),
    "vapourRise.start": { ...inUnit("unit", "Shut at", "gauge"), counts: withRise, defaultValue: () => "0" },
    "vapourRise.end": inUnit("unit", "Then", "gauge"),
    "vapourRise.seconds": { counts: withRise },
    "reference.diameter": { when: referred },
    again: { when: referred },
    touchedBefore: {
      options: ({ known }) =>
        known.context.layout.joints
          .filter((j) => j.kind === "seal" && ["tank", "neck", "canister", "purge-line"].includes(j.from))
          .map((j): Option => [j.id, j.name]),
    },
  },
  computed: {
    into: (_, state) => decaySetup(state).into,
    blocked: (_, state) => decaySetup(state).blocked,
    heldOpen: (_, state) => decaySetup(state).heldOpen,
    source: (_, { value }) => takenSamples(value("alone")).source,
    vent: ({ vent }, { value }) =>
      ventOf(vent, takenSamples(value("alone")).startedAt, { at: value("ventAt"), before: value("vent.at") }),
    samples: (_, { value }) => takenSamples(value("alone")).samples,
    reference: ({ reference }, state) =>
      // What is still missing of it the schema says.
      referred(state)
        ? { ...(reference as DecayRecord["reference"] & object), samples: takenSamples(state.value("again")).samples }
        : undefined,
  },
  laidOut: {
    alone: ({ samples, source }) => samplesAgain(samples, source),
    again: ({ reference }) => reference && samplesAgain(reference.samples, { kind: "typed" }),
    byReference: ({ reference }) => reference !== undefined,
  },
});
