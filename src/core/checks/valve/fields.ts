import { answer, choice, type FormState, fields, group, list, number, type RecordOf } from "../../form";
import { checkForm } from "../check-form";
import { duration, gauge, place, pressureUnit, trappedVolume } from "../fields";

export const POWER_NAMES = {
  "scan-tool": "Scan-tool command",
  loom: "The car's own loom, engine running",
  "12v": "12 V from a fused lead, unplugged",
} as const;
export type Power = keyof typeof POWER_NAMES;

/** One state of a valve: what was put on it, what was left, after how long. */
const state = (name: string, usual: string) =>
  group({
    start: number({
      name: `${name}: the start`,
      label: `${name}: Put on, inHg`,
      unit: "inHg",
      gauged: true,
      above: [0, `${name}: nothing was put on it`],
      missing: `${name}: type what was put on it`,
    }),
    end: number({
      name: `${name}: the end`,
      label: `${name}: Left, inHg`,
      unit: "inHg",
      gauged: true,
      min: [0, `${name}: the end cannot be negative`],
      missing: `${name}: type what was left`,
    }),
    seconds: duration(`${name}: the time`, { label: `${name}: After, s`, defaultValue: usual }),
  });
export type ValveState = ReturnType<typeof state>["value"];

const times = (name: string) =>
  number({
    name,
    bare: "times",
    integer: `${name}: a whole number`,
    min: [0, `${name} cannot be negative`],
    max: [1000, `${name}: more than 1,000 times`],
    missing: `${name}: say how many times`,
  });

/** A valve commanded repeatedly at one temperature. */
const cycle = group({
  temperature: choice({ cold: "Cold", hot: "Hot" }, { name: "The temperature" }).taken("While"),
  commanded: number({
    name: "Commanded",
    bare: "times",
    integer: "Commanded: a whole number",
    min: [1, "Command it at least once"],
    max: [1000, "Commanded: more than 1,000 times"],
    missing: "Commanded: say how many times",
  }),
  shut: times("Shut"),
  passed: times("Passed"),
  released: times("Released"),
}).rule("most", "It cannot have answered more often than it was commanded", ({ commanded, shut, passed, released }) =>
  [shut, passed, released].every((n) => Number(n ?? 0) <= Number(commanded ?? 0)),
);

/** A valve tried in both its states: what was put on, what was left. */
export const valveFields = fields({
  joint: place("Valve"),
  /** The fitted part, or the new one on the bench before it is fitted */
  part: choice(
    { fitted: "The one on the car", new: "The new one, on the bench" },
    { name: "The part", label: "Which part", defaultValue: "fitted" },
  ).setUp(),
  rests: choice({ closed: "Closed", open: "Open" }, { name: "At rest", label: "At rest it is" }).setUp(),
  temperature: choice({ cold: "Cold", warm: "Warm" }, { name: "Its temperature", label: "Tested" }),
  power: choice(POWER_NAMES, { name: "Power", label: "Powered by", defaultValue: "scan-tool" }).setUp(),
  /** Its plug was off the car's loom */
  unplugged: answer({
    label: "Its plug",
    yes: "Off the car's loom",
    no: "Still on",
  }).optional(),
  /** One of the two may be left out where the other decides alone */
  rest: state("At rest", "60").optional(),
  energised: state("Energised", "5").optional(),
  /** Absent: nobody said */
  clicked: answer({ label: "When switched", yes: "It clicks", no: "No click" }).optional(),
  /** A solenoid's third port: whether what stood at its outlet is let go when it is released */
  vents: answer({ label: "Third port, when released", yes: "Vents it", no: "Holds it" }).optional(),
  /** Commanded again and again: how many times it shut, passed and released, cold and hot */
  cycles: list(cycle, { label: "Commanded again and again", blank: { commanded: "10" }, max: 4 }).optional(),
  /** Of vacuum or pressure, whichever was put on */
  unit: pressureUnit(),
  instrument: gauge("vacuum"),
  /** Gas space between pump and part: with it a loss is a hole */
  volume: trappedVolume(),
}).rule(
  "rest.start",
  "Read at least one of its states: what was put on it, what was left, after how long",
  ({ rest, energised }) => rest !== undefined || energised !== undefined,
);
export type ValveRecord = RecordOf<typeof valveFields>;

type StateName = "rest" | "energised";
/** How long is only asked of a state that was read. */
const wasRead =
  <Which extends StateName>(which: Which) =>
  ({ value }: FormState<unknown, `${Which}.start` | `${Which}.end`>) =>
    Boolean(value(`${which}.start`) || value(`${which}.end`));

const counted = (what: string) => ({
  label: ({ value }: FormState<unknown, "temperature">) => `${value("temperature")}: ${what}, times`,
});

export const valveForm = checkForm(valveFields, {
  ask: {
    rests: {
      defaultValue: ({ known, value }) =>
        known.places.find((j) => j.id === value("joint"))?.rest === "open" ? "open" : "closed",
    },
    temperature: {
      defaultValue: ({ known }) => (known.warm === undefined ? undefined : known.warm ? "warm" : "cold"),
      hint: ({ known }) => (known.warm === undefined ? undefined : "As the conditions have the engine"),
    },
    unplugged: {
      when: ({ value }) => value("power") === "12v" && value("part") !== "new",
      needed: () => "Say whether its plug was off the car's loom: 12 V must not be fed back into the ECU",
    },
    "rest.seconds": { counts: wasRead("rest") },
    "energised.seconds": { counts: wasRead("energised") },
    cycles: {
      rows: {
        commanded: counted("Commanded"),
        shut: counted("Shut"),
        passed: counted("Passed"),
        released: counted("Released"),
      },
    },
  },
  computed: { unit: () => "inHg" as const },
});
