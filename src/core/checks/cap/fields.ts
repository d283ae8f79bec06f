import { answer, choice, fields, number, type RecordOf } from "../../form";
import { checkForm } from "../check-form";
import { duration, gauge, inUnit, pressureUnit, trappedVolume } from "../fields";

/** A filler cap by itself on a tester. */
export const capFields = fields({
  part: choice(
    { fitted: "The one from the car", new: "A new one, before it goes on" },
    { name: "The cap", label: "Which cap", defaultValue: "fitted" },
  ),
  unit: pressureUnit(["inH2O", "mbar", "psi", "kPa"], { label: "Unit", defaultValue: "inH2O" }),
  /** Gauge pressure in `unit` at the start and at the end */
  start: number({
    name: "The start",
    gauged: true,
    above: [0, "Nothing was put on it"],
    missing: "Type the pressure put on it",
    example: "30",
  }),
  end: number({
    name: "The end",
    gauged: true,
    min: [0, "The end cannot be negative"],
    missing: "Type the pressure that was left",
  }),
  seconds: duration("The time", { label: "After, s", defaultValue: "10" }),
  /** As seen; a cap that loses its pressure is bad whatever it looks like */
  seal: choice({ whole: "Whole", cracked: "Cracked", dirty: "Dirty" }, { label: "Its seal" }).optional(),
  /** The tester held by itself with a blank in place of the cap */
  testerProved: answer({
    label: "The tester with its blank",
    yes: "Held by itself",
    no: "Did not hold",
    missing: "Prove the tester with its blank, and say whether it held",
  }),
  instrument: gauge("cap"),
  volume: trappedVolume(),
});
export type CapRecord = RecordOf<typeof capFields>;

export const capForm = checkForm(capFields, {
  ask: { start: inUnit("unit", "Put on it", "gauge"), end: inUnit("unit", "Left", "gauge") },
});
