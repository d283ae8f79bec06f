import { answer, choice, fields, group, number, quantity, type RecordOf, text } from "../../form";
import { checkForm } from "../check-form";
import { duration, gauge, pressureUnit } from "../fields";

/** From the vacuum's source to what it moves; each link is read only while all before it are good. */
export const LINK_NAMES = {
  supply: "Vacuum at the solenoid's inlet",
  control: "Voltage across the solenoid, commanded",
  outlet: "Vacuum at its outlet, commanded",
  diaphragm: "Diaphragm and its pipe hold",
  shaft: "Shaft free by hand",
  movement: "Moves on command",
  plate: "Flap plates whole",
} as const;
export type LinkId = keyof typeof LINK_NAMES;
const LINKS = Object.keys(LINK_NAMES) as LinkId[];

/** Flaps, whatever they are called: vanes, a wastegate or an EGR valve have no plates that can break off their shaft. */
const PLATED = /flap|plate|runner|swirl|tumble/i;

/** The links of a device, in their order: plates only where it has some. */
export const linksOf = ({ device }: { readonly device: string }): readonly LinkId[] =>
  LINKS.filter((id) => id !== "plate" || PLATED.test(device));

/** Whose vacuum the device is tried on. */
export const SOURCE_NAMES = {
  engine: "Engine running",
  reservoir: "Reservoir, engine off",
  pump: "Hand pump at the solenoid",
} as const;
export type VacuumSource = keyof typeof SOURCE_NAMES;

const vacuum = (link: "supply" | "outlet") =>
  quantity("vacuum", { label: LINK_NAMES[link], units: ["inHg", "kPa", "mbar"], example: "18", column: link }).optional();
const volts = (label: string, example: string, column: string) =>
  quantity("voltage", { label, units: ["V", "mV"], example, column }).optional();
const link = (id: LinkId, yes: string, no: string) => answer({ label: LINK_NAMES[id], yes, no }).optional();

const links = group({
  supply: vacuum("supply"),
  battery: volts("Battery", "14.1", "battery"),
  control: volts("Across the solenoid, commanded", "13.6", "across the solenoid"),
  /** The solenoid unplugged and fed 12 V: whether what it works moves */
  fed: answer({
    label: "Unplugged and fed 12 V",
    yes: "It moves",
    no: "It does not",
    open: "Not tried",
    defaultValue: "open",
  }).optional(),
  outlet: vacuum("outlet"),
  diaphragm: group({
    start: number({
      name: "The start",
      label: "Start, inHg",
      unit: "inHg",
      gauged: true,
      above: [0, "Nothing was pumped on"],
      missing: "Type the vacuum at the start",
    }),
    end: number({
      name: "The end",
      label: "End, inHg",
      unit: "inHg",
      gauged: true,
      min: [0, "The end cannot be negative"],
      missing: "Type the vacuum at the end",
    }),
    seconds: duration("The time", { label: "After, s", defaultValue: "60" }),
    unit: pressureUnit(),
  }).optional(),
  shaft: link("shaft", "Free", "Binds"),
  movement: link("movement", "Moves", "Does not"),
  plate: link("plate", "Whole", "Broken or loose"),
}).rule(
  "battery",
  "Measure the battery with the voltage across the solenoid: one is compared with the other",
  ({ control, battery }) => control === undefined || battery !== undefined,
);

/** A vacuum-worked device from its supply to its plate. */
export const chainFields = fields({
  device: text({ name: "The device", label: "Device", missing: "Name the device", max: 60, defaultValue: "Runner flaps" }),
  /** The engine's, where nobody said otherwise */
  source: choice(SOURCE_NAMES, {
    name: "The vacuum's source",
    label: "Vacuum from",
    list: true,
    silent: ["engine"],
    defaultValue: "engine",
  }).optional(),
  links,
  instrument: gauge("vacuum"),
});
export type ChainRecord = RecordOf<typeof chainFields>;

export const chainForm = checkForm(chainFields, {
  ask: {
    "links.plate": { when: ({ value }) => linksOf({ device: String(value("device") ?? "") }).includes("plate") },
    "links.diaphragm.seconds": {
      counts: ({ value }) => Boolean(value("links.diaphragm.start") || value("links.diaphragm.end")),
    },
  },
  computed: {
    links: ({ links = {} }) => (links.diaphragm ? { ...links, diaphragm: { ...links.diaphragm, unit: "inHg" as const } } : links),
  },
});
