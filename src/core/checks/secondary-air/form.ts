import type { Given } from "../../form";
import { checkForm, type Known, optionsOf, placeField } from "../known";
import { SOAPED } from "./judge";
import { OPENED_BY, OXYGEN, RUN_BY, type SecondaryAirRecord, secondaryAirSchema, WHEN_SHUT } from "./record";

const idsOf = <T extends string>(of: Readonly<Record<T, string>>) => Object.keys(of) as T[];
const commanded = ({ holds }: Given<Known>) => holds("runBy") === "scan-tool";
const ran = ({ holds }: Given<Known>) => holds("pumped") === "yes";
const read = (given: Given<Known>) => ran(given) && given.holds("oxygen") !== "not-read" && given.holds("oxygen") !== undefined;

/** The pump, its joints, the valve open and the valve shut. */
export const secondaryAirForm = checkForm<SecondaryAirRecord>()({
  schema: secondaryAirSchema,
  fields: {
    joint: placeField("Switching valve"),
    runBy: {
      type: "choice",
      list: true,
      label: "The pump is made to run by",
      options: optionsOf(idsOf(RUN_BY), RUN_BY),
      holds: () => "scan-tool",
    },
    window: {
      type: "number",
      label: "The tool lets go after, s",
      bare: "s",
      holds: ({ known }) => String(known.context.limits.outputTime.value),
      when: commanded,
    },
    rearmed: { type: "tick", label: "Re-armed: key cycle or engine start since the last command", when: commanded },
    /** ms since 1970 */
    commandedAt: { type: "taken", label: "Commanded", aside: true },
    answeredAfter: { type: "taken", label: "Read after the command" },
    pumped: { type: "answer", label: "The pump", yes: "Runs, air felt", no: "Does not run" },
    engineRunning: { type: "answer", label: "Engine", yes: "Running", no: "Standing" },
    bubbles: {
      type: "marks",
      label: "Bubbles at",
      options: ({ known }) => known.context.layout.joints.filter((j) => SOAPED.includes(j.id)).map((j) => [j.id, j.name]),
    },
    soaped: { type: "tick", label: "Soaped: every joint, pump body and seams, while it ran" },
    openedBy: {
      type: "choice",
      label: "The valve is opened by",
      options: optionsOf(idsOf(OPENED_BY), OPENED_BY),
      holds: () => "hand-vacuum",
    },
    oxygen: { type: "choice", label: "Oxygen sensor, valve open", options: optionsOf(idsOf(OXYGEN), OXYGEN) },
    watched: { type: "number", label: "After, or watched for, s", bare: "s", example: "3", when: read },
    trim: { type: "number", label: "Short-term trim moved, %, if live", bare: "%", example: "+18", when: read },
    whenShut: {
      type: "choice",
      label: "Valve shut again",
      options: optionsOf(idsOf(WHEN_SHUT), WHEN_SHUT),
      holds: () => "not-felt",
    },
  },
  also: (record) => ({ bubbles: record.bubbles ?? [], rearmed: record.rearmed ?? false }),
});
