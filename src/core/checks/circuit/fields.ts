import { answer, choice, type FormState, fields, group, list, oneOf, quantity, type RecordOf, tick } from "../../form";
import { checkForm } from "../check-form";
import { meter, place } from "../fields";
import { type PinId, pinsOf, WIRING_NAMES, WIRINGS, type Wiring } from "./pins";

const SIDES = { ground: "Ground", feed: "Feed" } as const;

const PIN_IDS = [...new Set(WIRINGS.flatMap((w) => (["ground", "feed"] as const).flatMap((s) => pinsOf(w, s).map((p) => p.id))))];

const LAMPS = { bright: "Bright", dim: "Dim", dark: "Dark" } as const;
const pinReading = group({
  pin: oneOf(PIN_IDS, "The pin"),
  voltage: quantity("voltage", { column: "{pin}" }).optional(),
  lamp: choice(LAMPS, { name: "The lamp" }).optional(),
}).rule("one", "A pin has a voltage or a lamp", ({ voltage, lamp }) => (voltage === undefined) !== (lamp === undefined));
export type PinReading = (typeof pinReading)["value"];

/** A load's circuit, walked pin by pin from battery to load. */
export const circuitFields = fields({
  joint: place("Load"),
  wiring: choice(WIRING_NAMES, { name: "The wiring", label: "Wiring", defaultValue: "two-wire" }).setUp(),
  switched: choice(SIDES, { name: "The switched side", label: "Switched side", defaultValue: "ground" }).setUp(),
  /** This circuit is live only with the engine running */
  needsEngine: answer({ label: "Live only with the engine running", yes: "Yes", no: "With the ignition" }),
  engineRunning: answer({ label: "Engine meanwhile", yes: "Runs", no: "Stands" }),
  pierced: tick({ label: "A wire was pierced" }).optional(),
  /** Battery terminals, in the state the circuit was measured in */
  battery: quantity("voltage", {
    label: "Battery",
    units: ["V"],
    example: "14.1",
    missing: "Measure the battery first",
    column: "battery",
  }),
  readings: list(pinReading, { min: [1, "Measure at least the first pin"], max: 20 }),
  instrument: meter(),
});
export type CircuitRecord = RecordOf<typeof circuitFields>;

type State = FormState<unknown, "wiring" | "switched">;
/** The pins that this wiring is walked by. */
const walked = ({ value }: State) => pinsOf(value("wiring") as Wiring, value("switched") as keyof typeof SIDES);
const isWalked = (pin: PinId, state: State) => walked(state).some((p) => p.id === pin);

const VOLT_PINS = PIN_IDS.filter((p) => p !== "lamp") as readonly Exclude<PinId, "lamp">[];
type VoltName = `volts.${Exclude<PinId, "lamp">}`;
const byPin = <T>(of: (pin: PinId) => T) =>
  Object.fromEntries(VOLT_PINS.map((pin) => [`volts.${pin}`, of(pin)])) as Record<VoltName, T>;

export const circuitForm = checkForm(circuitFields, {
  // Pins are written down one by one, and recorded in the order in which they are walked.
  aside: {
    ...byPin(() => quantity("voltage", { units: ["V", "mV"] })),
    lamp: choice(LAMPS, { label: "The lamp" }),
  },
  into: { ...byPin((pin) => `readings.${pin}` as const), lamp: "readings.lamp" },
  ask: {
    ...byPin((pin) => ({
      label: (state: State) => walked(state).find((p) => p.id === pin)?.name ?? pin,
      example: (state: State) => (walked(state).find((p) => p.id === pin)?.expects === "nothing" ? "0.1" : "13.8"),
      when: (state: State) => isWalked(pin, state),
    })),
    lamp: { when: (state) => isWalked("lamp", state) },
  },
  computed: {
    readings: ({ readings }, state) => {
      const said = (readings ?? {}) as Readonly<Partial<Record<PinId, never>>>;
      const pins = walked(state).filter(({ id }) => said[id] !== undefined);
      return pins.map(({ id }) => ({ pin: id, [id === "lamp" ? "lamp" : "voltage"]: said[id] }));
    },
  },
  laidOut: {
    ...byPin((pin) => (record: CircuitRecord) => record.readings.find((r) => r.pin === pin)?.voltage),
    lamp: (record) => record.readings.find((r) => r.pin === "lamp")?.lamp,
  },
});
