import { answer, choice, type FormState, fields, type RecordOf, taken } from "../../form";
import { checkForm } from "../check-form";
import { duration, joints, percent, place } from "../fields";

/** Joints that air can bubble out of on its way to the valves. */
export const SOAPED: readonly string[] = ["pump-seam", "air-hose-joint"];

/** How the pump is made to run: three schools. */
export const RUN_BY = {
  "scan-tool": "Commanded by the scan tool",
  "relay-in": "Relay left in, engine running, its coil grounded through a test lamp",
  "fused-lead": "Fused lead at the unplugged relay's socket",
} as const;
export type RunBy = keyof typeof RUN_BY;
const OPENED_BY = { "hand-vacuum": "Hand pump on the valve", command: "Opened by the ECU" } as const;
const OXYGEN = { lean: "Went lean", "no-change": "No change", "not-read": "Not read" } as const;
const WHEN_SHUT = { quiet: "Quiet and cool", pulses: "Pulses or heat at its hose", "not-felt": "Not felt yet" } as const;

const REARMED = "Say whether the tool was re-armed: key cycle or engine start since the last command";

/** Secondary air of one bank: the pump made to run, its joints soaped, the switching valve opened and shut. */
export const secondaryAirFields = fields({
  /** The switching valve */
  joint: place("Switching valve", "joint", "Say which switching valve"),
  runBy: choice(RUN_BY, {
    name: "How the pump was run",
    label: "The pump is made to run by",
    list: true,
    defaultValue: "scan-tool",
  }),
  /** s that the command lasts before the tool lets go */
  window: duration("The command's time", { label: "Command times out after, s" }).optional(),
  /** Key cycle or engine start since the last command */
  rearmed: answer({
    label: "Key cycle or engine start since the last command",
    yes: "Yes: re-armed",
    no: "No",
  }).optional(),
  /** s from the command to the oxygen sensor's answer, where the command's clock ran */
  answeredAfter: duration("The time since the command").optional().taken("Read after the command"),
  /** The pump ran: heard, and air felt at its hose */
  pumped: answer({ label: "The pump", yes: "Runs, air felt", no: "Does not run", missing: "Say whether the pump ran" }),
  engineRunning: answer({ label: "Engine", yes: "Running", no: "Standing", missing: "Say whether the engine ran" }),
  bubbles: joints({ label: "Bubbles at" }),
  /** Every joint, the pump's body and its seams were soaped while it ran */
  soaped: answer({
    label: "Every joint, pump body and seams",
    yes: "Soaped while it ran",
    no: "Not all soaped",
  }).optional(),
  openedBy: choice(OPENED_BY, {
    name: "How the valve was opened",
    label: "The valve is opened by",
    defaultValue: "hand-vacuum",
  }),
  oxygen: choice(OXYGEN, { name: "The oxygen sensor", label: "Oxygen sensor, valve open" }),
  /** s from opening the valve, or from the command, to the reaction or to the end of watching */
  watched: duration("The time watched", {
    label: "After, or watched for, s",
    example: "3",
    column: "oxygen sensor's reaction",
  }).optional(),
  /** Short-term trim's change, percent, where it was live */
  trim: percent("The trim's change", -60, 60, {
    label: "Short-term trim moved, %, if live",
    example: "+18",
    column: "short-term trim moved",
  }).optional(),
  whenShut: choice(WHEN_SHUT, { name: "The shut valve", label: "Valve shut again", defaultValue: "not-felt" }),
}).rule(
  "watched",
  "Say how many seconds the oxygen sensor was watched",
  ({ oxygen, watched }) => oxygen === "not-read" || oxygen === undefined || watched !== undefined,
);
export type SecondaryAirRecord = RecordOf<typeof secondaryAirFields>;

const commanded = ({ value }: FormState<unknown, "runBy">) => value("runBy") === "scan-tool";
const isRead = ({ value }: FormState<unknown, "pumped" | "oxygen">) =>
  value("pumped") === "yes" && value("oxygen") !== "not-read" && value("oxygen") !== undefined;

/** The pump, its joints, the valve open and the valve shut. */
export const secondaryAirForm = checkForm(secondaryAirFields, {
  aside: {
    /** ms since 1970 */
    commandedAt: taken("Commanded"),
  },
  ask: {
    window: { defaultValue: ({ known }) => String(known.context.limits.outputTime.value), when: commanded },
    rearmed: { when: commanded, needed: () => REARMED },
    bubbles: {
      options: ({ known }) => known.context.layout.joints.filter((j) => SOAPED.includes(j.id)).map((j) => [j.id, j.name]),
    },
    watched: { when: isRead },
    trim: { when: isRead },
  },
  computed: { bubbles: ({ bubbles }) => bubbles ?? [] },
});
