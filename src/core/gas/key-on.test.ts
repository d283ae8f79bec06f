import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { KEY_ON_APART, standingFault } from "./key-on";

const AIR = 101e3;

describe("pressure sensors with the engine standing", () => {
  it.each<[string, Parameters<typeof standingFault>[0], readonly string[]]>([
    ["one of four", { outside: AIR, ambient: AIR + 300, map: AIR - 200, charge: AIR + 5e3 }, ["charge"]],
    ["the ECU's own ambient sensor", { outside: AIR, ambient: AIR - 4e3, map: AIR, charge: AIR + 500 }, ["ambient"]],
    ["what was typed, where every sensor agrees", { outside: AIR, map: 97e3, charge: 97.4e3 }, ["outside"]],
    ["one of two: which, is open", { outside: AIR, map: AIR + 6e3 }, ["outside", "map"]],
    ["the exhaust's", { outside: AIR, map: AIR, exhaust: AIR + 9e3 }, ["exhaust"]],
    ["the filter's, which shows a difference", { outside: AIR, map: AIR, filter: 700 }, ["filter"]],
    ["the filter's, the other way", { outside: AIR, filter: -700 }, ["filter"]],
    ["two at once", { outside: AIR, map: AIR, charge: AIR + 5e3, filter: 900 }, ["charge", "filter"]],
    ["two pairs: nobody knows", { outside: AIR, ambient: AIR, map: 95e3, charge: 95e3 }, ["outside", "ambient", "map", "charge"]],
  ])("names %s", (_, read, sensors) => {
    expect(standingFault(read)?.sensors).toEqual(sensors);
  });

  it("names none that agree, and says nothing of what was not read", () => {
    expect(standingFault({ outside: AIR })).toBeUndefined();
    expect(standingFault({ outside: AIR, map: AIR + KEY_ON_APART, charge: AIR, exhaust: AIR, filter: 150 })).toBeUndefined();
  });

  it("names the one that lies apart, whichever it is and however the others scatter within what is allowed", () => {
    const names = ["outside", "ambient", "map", "charge", "exhaust"] as const;
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 4 }),
        fc.array(fc.double({ min: -900, max: 900, noNaN: true }), { minLength: 5, maxLength: 5 }),
        fc.double({ min: 3.5e3, max: 40e3, noNaN: true }),
        fc.boolean(),
        (odd, scatter, by, up) => {
          const read = Object.fromEntries(
            names.map((n, i) => [n, AIR + (scatter[i] as number) + (i === odd ? (up ? by : -by) : 0)]),
          ) as unknown as Parameters<typeof standingFault>[0];
          expect(standingFault(read)?.sensors).toEqual([names[odd]]);
        },
      ),
    );
  });
});
