import type { Given } from "../../form";
import type { UnitId } from "../../units";
import { checkForm, type Known, optionsOf, placeField, unitOptions } from "../known";
import { PINCH_READ_NAMES, PINCH_READS, type PinchReads, type PinchRecord, pinchSchema } from "./record";

const UNITS: Partial<Record<PinchReads, readonly [UnitId, ...UnitId[]]>> = {
  flow: ["L/min", "cc/min", "SCFH"],
  vacuum: ["inHg", "kPa", "mbar", "hPa"],
};
const SHOWN = { trim: "%", rpm: "1/min" } as const;

const readsOf = ({ holds }: Given<Known>) => holds("reads") as PinchReads;
/** The unit that what is watched is read in, where it has a choice of them. */
const unitOf = (given: Given<Known>): UnitId | undefined => {
  const units = UNITS[readsOf(given)];
  const chosen = given.holds("unit") as UnitId;
  return units && (units.includes(chosen) ? chosen : units[0]);
};
const shownUnit = (given: Given<Known>) => {
  const reads = readsOf(given);
  return reads === "trim" || reads === "rpm" ? SHOWN[reads] : unitOf(given);
};
const reading = (name: string) => ({ type: "number", label: (given: Given<Known>) => `${name}, ${shownUnit(given)}` }) as const;

/** A branch shut off: three readings side by side, and what came back. */
export const pinchForm = checkForm<PinchRecord>()({
  schema: pinchSchema,
  fields: {
    joint: placeField("Branch"),
    how: {
      type: "choice",
      label: "How",
      options: [
        ["pinch", "Pinched with clamps"],
        ["cap", "Off and capped, both sides"],
      ],
      holds: () => "pinch",
    },
    reads: {
      type: "choice",
      label: "What is watched",
      options: optionsOf(PINCH_READS, PINCH_READ_NAMES),
      holds: () => "trim",
    },
    unit: {
      type: "choice",
      label: "Unit",
      list: true,
      options: (given) => unitOptions(UNITS[readsOf(given)] ?? []),
      when: (given) => UNITS[readsOf(given)] !== undefined,
      holds: ({ holds }) => UNITS[holds("reads") as PinchReads]?.[0],
      aside: true,
    },
    before: reading("Before"),
    shut: reading("Shut off"),
    released: reading("Released"),
    blankProved: { type: "tick", label: "The clamp or cap was proved: it holds by itself" },
  },
  also: (_, given) => {
    const unit = unitOf(given);
    return unit ? { unit } : {};
  },
});
