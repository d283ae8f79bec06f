import { checkForm, gaugeField, optionsOf } from "../known";
import { type ChainRecord, chainSchema, LINK_NAMES, type LinkId, SOURCE_NAMES, SOURCES } from "./record";

const vacuum = (link: LinkId) =>
  ({
    type: "quantity",
    label: LINK_NAMES[link],
    band: "vacuum",
    unit: "inHg",
    units: ["inHg", "kPa", "mbar"],
    example: "18",
  }) as const;
const volts = (label: string, example: string) =>
  ({ type: "quantity", label, band: "voltage", unit: "V", units: ["V", "mV"], example }) as const;
const answer = (link: LinkId, yes: string, no: string) => ({ type: "answer", label: LINK_NAMES[link], yes, no }) as const;

/** A vacuum-worked device from its supply to its plate. */
export const chainForm = checkForm<ChainRecord>()({
  schema: chainSchema,
  fields: {
    device: { type: "text", label: "Device", holds: () => "Runner flaps" },
    source: {
      type: "choice",
      label: "Vacuum from",
      list: true,
      options: optionsOf(SOURCES, SOURCE_NAMES),
      silent: "engine",
      holds: () => "engine",
    },
    "links.supply": vacuum("supply"),
    "links.battery": volts("Battery", "14.1"),
    "links.control": volts("Across the solenoid, commanded", "13.6"),
    "links.fed": {
      type: "answer",
      label: "Unplugged and fed 12 V",
      yes: "It moves",
      no: "It does not",
      open: "Not tried",
      holds: () => "open",
    },
    "links.outlet": vacuum("outlet"),
    "links.diaphragm.start": { type: "number", label: "Start, inHg", unit: "inHg" },
    "links.diaphragm.end": { type: "number", label: "End, inHg", unit: "inHg" },
    "links.diaphragm.seconds": {
      type: "number",
      label: "After, s",
      bare: "s",
      holds: () => "60",
      counts: ({ holds }) => Boolean(holds("links.diaphragm.start") || holds("links.diaphragm.end")),
    },
    "links.shaft": answer("shaft", "Free", "Binds"),
    "links.movement": answer("movement", "Moves", "Does not"),
    "links.plate": answer("plate", "Whole", "Broken or loose"),
    instrument: gaugeField("vacuum"),
  },
  also: (read) => {
    const links = (read.links ?? {}) as ChainRecord["links"];
    return { links: links.diaphragm ? { ...links, diaphragm: { ...links.diaphragm, unit: "inHg" } } : links };
  },
});
