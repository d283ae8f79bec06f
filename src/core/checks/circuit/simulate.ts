import { type Bay, chosen, faultsThere, gaugeIn, placeOf, type Setup, shown } from "../../practice/readers/bay";
import type { CircuitRecord } from "./fields";
import { pinsOf } from "./pins";

const BATTERY = 14.1;

export const simulate = (bay: Bay, setup: Setup): CircuitRecord => {
  const { noise } = bay;
  const place = placeOf(setup);
  const wiring = chosen<"two-wire" | "relay">(setup, "wiring", place === "air-pump" ? "relay" : "two-wire");
  const switched = chosen<"ground" | "feed">(setup, "switched", "ground");
  const broken = faultsThere(bay, place, "circuit-dead")[0];
  const pins = pinsOf(wiring, switched);
  // Where the break lies: what comes before it is good, what comes after it is dead.
  const from = broken ? Math.min(pins.length - 1, Math.floor(broken.size * pins.length)) : pins.length;
  const volts = (value: number) => shown(Math.max(0, value + noise.normal(0.02)), "V", 0.01);
  return {
    joint: place,
    wiring,
    switched,
    battery: volts(BATTERY),
    engineRunning: chosen(setup, "engineRunning", true),
    needsEngine: true,
    readings: pins.map((pin, i) => {
      const good = i < from;
      if (pin.expects === "lamp") return { pin: pin.id, lamp: good ? "bright" : "dark" };
      return { pin: pin.id, voltage: volts(pin.expects === "nothing" ? (good ? 0.02 : 6) : good ? BATTERY - 0.2 : 0.1) };
    }),
    pierced: chosen(setup, "pierced", false),
    instrument: gaugeIn("V", 0.01),
  };
};
