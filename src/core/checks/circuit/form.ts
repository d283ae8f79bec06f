import type { Given } from "../../form";
import { checkForm, type Known, meterField, optionsOf, placeField } from "../known";
import { type PinId, pinsOf, WIRING_NAMES, WIRINGS, type Wiring } from "./pins";
import { type CircuitRecord, circuitSchema, PIN_IDS, type PinReading } from "./record";

type PinName = `volts.${PinId}`;

/** The pins that this wiring is walked by. */
const walked = ({ holds }: Given<Known>) => pinsOf(holds("wiring") as Wiring, holds("switched") as "ground" | "feed");
const isWalked = (pin: PinId, given: Given<Known>) => walked(given).some((p) => p.id === pin);

const voltageAt = (pin: PinId) =>
  ({
    type: "quantity",
    label: (given: Given<Known>) => walked(given).find((p) => p.id === pin)?.name ?? pin,
    band: "voltage",
    unit: "V",
    units: ["V", "mV"],
    example: (given: Given<Known>) => (walked(given).find((p) => p.id === pin)?.expects === "nothing" ? "0.1" : "13.8"),
    when: (given: Given<Known>) => isWalked(pin, given),
    at: `readings.${pin}`,
  }) as const;
const voltages = Object.fromEntries(PIN_IDS.filter((p) => p !== "lamp").map((p) => [`volts.${p}`, voltageAt(p)])) as Record<
  Exclude<PinName, "volts.lamp">,
  ReturnType<typeof voltageAt>
>;

/** The wire walked from battery to load. */
export const circuitForm = checkForm<CircuitRecord>()({
  schema: circuitSchema,
  fields: {
    joint: placeField("Load"),
    wiring: { type: "choice", label: "Wiring", options: optionsOf(WIRINGS, WIRING_NAMES), holds: () => "two-wire" },
    switched: {
      type: "choice",
      label: "Switched side",
      options: [
        ["ground", "Ground"],
        ["feed", "Feed"],
      ],
      holds: () => "ground",
    },
    needsEngine: { type: "answer", label: "Live only with the engine running", yes: "Yes", no: "With the ignition" },
    engineRunning: { type: "answer", label: "Engine meanwhile", yes: "Runs", no: "Stands" },
    pierced: { type: "tick", label: "A wire was pierced" },
    battery: { type: "quantity", label: "Battery", band: "voltage", unit: "V", units: ["V"], example: "14.1" },
    ...voltages,
    lamp: {
      type: "choice",
      label: "The lamp",
      options: [
        ["bright", "Bright"],
        ["dim", "Dim"],
        ["dark", "Dark"],
      ],
      when: (given) => isWalked("lamp", given),
      at: "readings.lamp",
    },
    instrument: meterField,
  },
  // Pins are written down one by one, and recorded in the order in which they are walked.
  also: (read, given) => {
    const said = (read.readings ?? {}) as Readonly<Record<string, unknown>>;
    const pins = walked(given).filter(({ id }) => said[id] !== undefined);
    return { readings: pins.map(({ id }) => ({ pin: id, [id === "lamp" ? "lamp" : "voltage"]: said[id] }) as PinReading) };
  },
  laidOut: (record) => ({
    ...record,
    readings: Object.fromEntries(record.readings.map((r) => [r.pin, r.voltage ?? r.lamp])),
  }),
});
