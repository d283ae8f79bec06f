import type { Given } from "../../form";
import type { UnitId } from "../../units";
import type { Known } from "../known";
import { checkForm, gaugeField, trappedField, unitOptions } from "../known";
import { type CapRecord, capSchema } from "./record";

const unitOf = ({ holds }: Given<Known>) => holds("unit") as UnitId;

/** The filler cap by itself on a tester. */
export const capForm = checkForm<CapRecord>()({
  schema: capSchema,
  fields: {
    part: {
      type: "choice",
      label: "Which cap",
      options: [
        ["fitted", "The one from the car"],
        ["new", "A new one, before it goes on"],
      ],
      holds: () => "fitted",
    },
    unit: { type: "choice", label: "Unit", options: unitOptions(["inH2O", "mbar", "psi", "kPa"]), holds: () => "inH2O" },
    start: { type: "number", label: (g) => `Put on it, ${unitOf(g)} gauge`, unit: unitOf, example: "30" },
    end: { type: "number", label: (g) => `Left, ${unitOf(g)} gauge`, unit: unitOf },
    seconds: { type: "number", label: "After, s", bare: "s", holds: () => "10" },
    seal: {
      type: "choice",
      label: "Its seal",
      options: [
        ["whole", "Whole"],
        ["cracked", "Cracked"],
        ["dirty", "Dirty"],
      ],
    },
    testerProved: { type: "tick", label: "The tester held by itself with its blank" },
    instrument: gaugeField("cap"),
    volume: trappedField,
  },
});
