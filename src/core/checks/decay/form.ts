import type { Given } from "../../form";
import type { UnitId } from "../../units";
import { entriesOf, type FillSetup, usualSetup } from "../../vehicle";
import { entryPrice, preferredEntry } from "../evap-smoke";
import { AIR_ELSEWHERE, airOf, checkForm, fuelLevelField, gaugeField, given, type Known, unitOptions } from "../known";
import { samplesAgain, takenSamples } from "../samples";
import { ventOf, ventSecondsField, ventShutField } from "../vent-form";
import { type DecayRecord, decaySchema } from "./record";

const unitOf = ({ holds }: Given<Known>) => holds("unit") as UnitId;
const withRise = ({ holds }: Given<Known>) => Boolean(holds("vapourRise.end"));
const referred = ({ holds }: Given<Known>) => holds("byReference") === true;

/** The system as it is entered here: what is blocked, what is held open. */
export function decaySetup({ known, holds }: Given<Known>): FillSetup {
  const entry = String(holds("entry") ?? "");
  const setup = usualSetup(known.context.layout, entry);
  return { ...setup, blocked: [holds("vent.by") === "command" ? "vent-valve" : "vent-filter"] };
}

/** Hold, shut off, watch it fall: by volume, and with a reference hole open for a second run. */
export const decayForm = checkForm<DecayRecord>()({
  schema: decaySchema,
  fields: {
    entry: {
      type: "choice",
      list: true,
      label: "Pressure goes in at",
      options: ({ known }) => entriesOf(known.context.layout, "evap").map((j) => [j.id, j.name]),
      holds: ({ known }) => preferredEntry(known.context),
      hint: ({ known, holds }) => {
        const entry = entriesOf(known.context.layout, "evap").find((j) => j.id === holds("entry"));
        return entry && `Price: ${entryPrice(entry)}`;
      },
    },
    unit: {
      type: "choice",
      label: "Unit of the gauge",
      options: unitOptions(["inH2O", "Pa", "mbar", "psi"]),
      holds: () => "inH2O",
    },
    "vent.by": ventShutField("plug"),
    fuelLevel: fuelLevelField,
    "vent.seconds": ventSecondsField,
    /** s on the record's clock, where it is corrected */
    "vent.at": { type: "taken", label: "Vent commanded at", aside: true },
    /** ms since 1970 of the vent's command */
    ventAt: { type: "taken", label: "Vent commanded", aside: true },
    hotTank: { type: "tick", label: "The tank is warm to the hand", aside: true },
    "vapourRise.start": {
      type: "number",
      label: (g) => `Shut at, ${unitOf(g)} gauge`,
      unit: unitOf,
      counts: withRise,
      holds: () => "0",
    },
    "vapourRise.end": { type: "number", label: (g) => `Then, ${unitOf(g)} gauge`, unit: unitOf },
    "vapourRise.seconds": { type: "number", label: "After, s", bare: "s", counts: withRise, holds: () => "120" },
    held: { type: "number", label: "Held before shut-off, s", bare: "s" },
    /** ms since 1970 when the hold began */
    holdFrom: { type: "taken", label: "Hold began", aside: true },
    alone: { type: "taken", label: "Decay", at: "samples", aside: true },
    byReference: {
      type: "tick",
      label: "Once more with a reference hole open: it takes volume and yielding walls out",
      aside: true,
    },
    "reference.diameter": {
      type: "quantity",
      label: "Reference hole",
      band: "hole",
      unit: "mm",
      units: ["mm", "in", "thou"],
      example: "0.508",
      holds: () => "0.508 mm",
      when: referred,
    },
    again: { type: "taken", label: "With the reference hole", at: "reference.samples", aside: true, when: referred },
    instrument: gaugeField("lowPressure"),
    volume: {
      type: "quantity",
      label: "Gas space, where it is known better than by fuel level",
      band: "volume",
      unit: "L",
      units: ["L"],
      example: "33",
    },
    adapterLeaks: { type: "tick", label: "The adapter leaked at its own seal" },
    touchedBefore: {
      type: "marks",
      label: "Tightened or touched before the test",
      options: ({ known }) =>
        known.context.layout.joints
          .filter((j) => j.kind === "seal" && ["tank", "neck", "canister", "purge-line"].includes(j.from))
          .map((j) => [j.id, j.name]),
    },
  },
  also: (read, all) => {
    const alone = takenSamples(all.holds("alone"));
    const reference = read.reference as { readonly diameter?: unknown } | undefined;
    return {
      ...decaySetup(all),
      source: alone.source,
      vent: ventOf(read, alone.startedAt, all),
      samples: alone.samples,
      ...(referred(all) ? { reference: { ...reference, samples: takenSamples(all.holds("again")).samples } } : {}),
      ...given("required", all.known.required),
      ...airOf(all, "temperature"),
    };
  },
  keeps: ["ambient", "temperature", "required"],
  elsewhere: AIR_ELSEWHERE,
  laidOut: (record) => ({
    ...record,
    samples: samplesAgain(record.samples, record.source),
    byReference: record.reference !== undefined,
    ...(record.reference
      ? { reference: { ...record.reference, samples: samplesAgain(record.reference.samples, { kind: "typed" }) } }
      : {}),
  }),
});
