import * as fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { CodeRead } from "../journal/entries";
import { readObd } from "../scan-log";
import { codeBytes, type EcuNow, ObdEcu } from "./obd-ecu";
import { ask, scanCodes } from "./obd-scan";

const now: EcuNow = {
  values: {
    loop: 1,
    coolant: 361.15,
    "short-trim-1": 1.5625,
    "long-trim-1": 12.5,
    map: 34e3,
    rpm: 740.25,
    "intake-temperature": 290.15,
    maf: 0.00241,
    barometer: 101e3,
  },
  codes: [
    {
      code: "P0171",
      status: "stored",
      frame: { rpm: 750, load: 34, coolant: { value: 88, unit: "°C" }, short: 1.6, long: 12.5 },
    },
    { code: "P0442", status: "pending" },
    { code: "P0128", status: "history" },
  ],
  permanent: ["P0171"],
  complete: true,
  petrol: true,
  vin: "FERROWICK00000001",
  leak: { measured: 0.7e-3, limit: 0.508e-3 },
  running: false,
};
const ecu = (change: Partial<EcuNow> = {}) => new ObdEcu(() => ({ ...now, ...change }));
const hex = (bytes: readonly number[]) => bytes.map((b) => b.toString(16).toUpperCase().padStart(2, "0")).join(" ");
/** Asked over the bus, and read by the decoder that reads any tool's log. */
const read = (request: readonly number[], change: Partial<EcuNow> = {}) => readObd(hex(ask(ecu(change), request)));
const valuesOf = (request: readonly number[], change = {}) =>
  Object.fromEntries(read(request, change).messages[0]?.values.map((v) => [v.pid ?? v.name, v.value]) ?? []);

describe("an ECU that answers SAE J1979", () => {
  it.each([
    // The standard's own examples of how numbers go into bytes.
    [[0x01, 0x0c], "41 0C 0B 91"],
    [[0x01, 0x05], "41 05 80"],
    [[0x01, 0x06, 0x07], "41 06 82 07 90"],
    [[0x01, 0x10], "41 10 00 F1"],
    [[0x01, 0x0b], "41 0B 22"],
    [[0x03], "43 01 01 71"],
    [[0x07], "47 01 04 42"],
    [[0x0a], "4A 01 01 71"],
    [[0x04], "44"],
    [[0x05, 0x01, 0x01], "7F 05 11"],
    [[0x09, 0x02], `49 02 01 ${hex([...new TextEncoder().encode("FERROWICK00000001")])}`],
    [[0x01], "7F 01 13"],
    [[0x01, 0x5e], "7F 01 12"],
    [[0x22, 0xf1, 0x90], "7F 22 11"],
  ] as const)("answers %j with %s", (request, answer) => {
    expect(hex(ask(ecu(), request))).toBe(answer);
  });

  it("says which PIDs it has, and answers each of them and no other", () => {
    const listed = String(read([0x01, 0x00]).messages[0]?.values[0]?.value).split(" ");
    expect(listed).toEqual(expect.arrayContaining(["01", "0C", "10", "20"]));
    expect(listed).not.toContain("08");
    for (let pid = 1; pid < 0x20; pid++) {
      const name = pid.toString(16).toUpperCase().padStart(2, "0");
      expect(ask(ecu(), [0x01, pid])[0] === 0x41, name).toBe(listed.includes(name));
    }
  });

  it("is read back by the decoder to within a step of each PID", () => {
    const fraction = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(fraction, fraction, fraction, fraction, (a, b, c, d) => {
        const values = { rpm: 8000 * a, map: 250e3 * b, "long-trim-1": -25 + 50 * c, coolant: 240 + 150 * d, maf: 0.4 * a };
        const decoded = valuesOf([0x01, 0x0c, 0x0b, 0x07, 0x05, 0x10], { values }) as Record<string, number>;
        expect(Math.abs((decoded["0C"] as number) - values.rpm)).toBeLessThanOrEqual(0.126);
        expect(Math.abs((decoded["0B"] as number) - values.map / 1e3)).toBeLessThanOrEqual(0.51);
        expect(Math.abs((decoded["07"] as number) - values["long-trim-1"])).toBeLessThanOrEqual(0.4);
        expect(Math.abs((decoded["05"] as number) - (values.coolant - 273.15))).toBeLessThanOrEqual(0.51);
        expect(Math.abs((decoded["10"] as number) - values.maf * 1e3)).toBeLessThanOrEqual(0.0051);
      }),
    );
  });

  it("says any code as two bytes that the decoder reads back", () => {
    const digit = fc.constantFrom(..."0123456789ABCDEF");
    const code = fc.tuple(fc.constantFrom(..."PCBU"), fc.integer({ min: 0, max: 3 }), digit, digit, digit).map((p) => p.join(""));
    fc.assert(
      fc.property(fc.uniqueArray(code, { maxLength: 40 }), (codes) => {
        const wanted = codes.filter((c) => codeBytes(c).some((b) => b !== 0));
        const stored = wanted.map((c): CodeRead => ({ code: c, status: "stored" }));
        expect(read([0x03], { codes: stored }).codes.map((c) => c.code)).toEqual(wanted);
      }),
    );
  });

  it("tells the light, the count and the monitors, complete or not", () => {
    const ready = read([0x01, 0x01]);
    expect(ready.lightOn).toBe(true);
    expect(ready.readiness.every((r) => r.complete)).toBe(true);
    expect(ready.readiness.map((r) => r.monitor)).toEqual(expect.arrayContaining(["EVAP", "Catalyst", "Secondary air"]));
    const cleared = read([0x01, 0x01], { codes: [], complete: false });
    expect(cleared.lightOn).toBe(false);
    expect(cleared.readiness.some((r) => !r.complete)).toBe(true);
  });

  it("holds the leak monitor's result against its limit", () => {
    expect(read([0x06, 0x3c]).monitorTests).toMatchObject([{ monitor: "EVAP, 0.020 in", passed: false }]);
    expect(read([0x06, 0x3c], { leak: { measured: 0.2e-3, limit: 0.508e-3 } }).monitorTests[0]?.passed).toBe(true);
    expect(hex(ask(ecu({ leak: undefined as never }), [0x06, 0x3c]))).toBe("7F 06 12");
  });

  it("clears only with the engine standing, and tells who keeps its memory", () => {
    const one = ecu();
    let cleared = 0;
    one.onCleared = () => cleared++;
    expect(hex(ask(one, [0x04]))).toBe("44");
    expect(cleared).toBe(1);
    expect(hex(ask(ecu({ running: true }), [0x04]))).toBe("7F 04 22");
  });

  it("is scanned whole: stored with its frame, pending, and what is permanent alone once it was cleared", () => {
    expect(scanCodes(ecu())).toMatchObject([
      { code: "P0171", status: "stored", frame: { rpm: 750, coolant: { value: 88, unit: "°C" } } },
      { code: "P0442", status: "pending" },
    ]);
    expect(scanCodes(ecu({ codes: [] }))).toEqual([{ code: "P0171", status: "permanent" }]);
    expect(scanCodes(ecu({ codes: [], permanent: [] }))).toEqual([]);
  });

  it("stops at no request, however it is made up", () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 255 }), { minLength: 1, maxLength: 12 }), (request) => {
        const answer = ask(ecu(), request);
        expect(answer.every((b) => Number.isInteger(b) && b >= 0 && b <= 255)).toBe(true);
        expect(answer[0] === (request[0] as number) + 0x40 || answer[0] === 0x7f).toBe(true);
      }),
    );
  });
});
