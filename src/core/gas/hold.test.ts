import { describe, expect, it } from "vitest";
import { shareLostIn } from "./hold";

/** Pressure in a volume that leaks, by small steps of its mass, with the two textbook forms of orifice flow: an outsider to the integral. */
function leaking(volume: number, start: number, area: number, ambient: number, seconds: number): number {
  const [gamma, gas, kelvin, step] = [1.4, 287.05, 293, 1e-3];
  const critical = (2 / (gamma + 1)) ** (gamma / (gamma - 1));
  const perArea = (up: number, down: number) => {
    const r = Math.max(down / up, critical);
    return up * Math.sqrt(((2 * gamma) / ((gamma - 1) * gas * kelvin)) * (r ** (2 / gamma) - r ** ((gamma + 1) / gamma)));
  };
  let mass = (start * volume) / (gas * kelvin);
  for (let t = 0; t < seconds - step / 2; t += step) {
    const p = (mass * gas * kelvin) / volume;
    mass += Math.sign(ambient - p) * area * perArea(Math.max(p, ambient), Math.min(p, ambient)) * step;
  }
  return (mass * gas * kelvin) / volume;
}

describe("what the same hole loses in another time", () => {
  const ambient = 101_325;
  it.each([
    ["deep vacuum, choked at first", 20_000, 10, 60],
    ["shallow vacuum", 85_000, 20, 60],
    ["watched long, asked for less", 40_000, 90, 60],
    ["pressure", 180_000, 15, 60],
  ])("%s", (_, start, watched, other) => {
    const [volume, area] = [30e-6, 1.2e-9];
    const at = (seconds: number) => leaking(volume, start, area, ambient, seconds);
    const share = shareLostIn({ volume, start, end: at(watched), seconds: watched, ambient, temperature: 293 }, other);
    expect(share).toBeCloseTo((at(other) - start) / (ambient - start), 2);
  });

  it("is the share that was read where the time is the same, all of it in the end, and nothing where nothing was lost", () => {
    const held = { volume: 30e-6, start: 40_000, end: 60_000, seconds: 30, ambient, temperature: 293 };
    expect(shareLostIn(held, 30)).toBeCloseTo(20_000 / 61_325, 4);
    expect(shareLostIn(held, 1e6)).toBe(1);
    expect(shareLostIn({ ...held, end: 40_000 }, 60)).toBeNaN();
  });
});
