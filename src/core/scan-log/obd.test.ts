import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { tankTrace } from "../checks/decay/extract";
import { BadInput } from "../input";
import { readObd } from "./obd";
import { PIDS } from "./obd-tables";
import { readScanLog } from "./read";

const first = (line: string) => readObd(line).messages[0];
const value = (line: string, name: string) => first(line)?.values.find((v) => v.name === name);

describe("OBD payloads (SAE J1979)", () => {
  it.each<[string, string, number | string, string?, string?]>([
    ["41 0C 1A F8", "Engine speed", 1726, "rpm"],
    ["41 05 7B", "Coolant temperature", 83, "°C"],
    ["41 06 90", "Short-term trim, bank 1", 12.5, "%"],
    ["41 07 80", "Long-term trim, bank 1", 0, "%"],
    ["41 0B 21", "Manifold pressure", 33, "kPa", "absolute"],
    ["41 10 01 04", "Air meter", 2.6, "g/s"],
    ["41 2F 80", "Fuel level", 50.196078, "%"],
    ["41 2E FF", "Commanded purge", 100, "%"],
    ["41 32 FF 38", "EVAP system vapour pressure", -50, "Pa", "gauge"],
    ["41 53 4F 5A", "EVAP system vapour pressure", 101.57, "kPa", "absolute"],
    ["41 54 FE 0C", "EVAP system vapour pressure", -500, "Pa", "gauge"],
    ["41 33 65", "Barometric pressure", 101, "kPa", "absolute"],
    ["41 14 5A FF", "O2 voltage, bank 1 sensor 1", 0.45, "V"],
    ["41 24 80 00 80 00", "Lambda, bank 1 sensor 1", 1],
    ["41 34 80 00 80 00", "O2 current, bank 1 sensor 1", 0, "mA"],
    ["41 44 7F FF", "Commanded lambda", 0.999969],
    ["41 03 02 00", "Fuel system 1", "closed loop"],
    ["42 0C 00 0B E8", "Engine speed", 762, "rpm"],
    ["42 02 00 04 42", "Code that froze this frame", "P0442"],
  ])("%s: %s is %s %s", (line, name, expected, unit, kind) => {
    const read = value(line, name);
    expect(read?.value).toBe(expected);
    expect(read?.unit).toBe(unit);
    expect(read?.kind).toBe(kind);
  });

  it("reads several PIDs of one message, and leaves an unknown one with what follows as bytes", () => {
    expect(first("410C1AF8057B")?.values.map((v) => v.name)).toEqual(["Engine speed", "Coolant temperature"]);
    expect(first("41 05 7B 9D 01 02 0C 1A F8")?.values.at(-1)).toMatchObject({ pid: "9D", value: "01 02 0C 1A F8" });
    expect(first("62 12 34")?.values).toEqual([{ name: "Not decoded", value: "12 34" }]);
  });

  it("reads codes over CAN with a count and over older links without, by status", () => {
    expect(readObd("43 02 01 71 04 42\n47 01 04 56\n4A 01 C1 23").codes).toEqual([
      { code: "P0171", status: "stored" },
      { code: "P0442", status: "stored" },
      { code: "P0456", status: "pending" },
      { code: "U0123", status: "permanent" },
    ]);
    expect(readObd("43 01 71 00 00 00 00").codes).toEqual([{ code: "P0171", status: "stored" }]);
    expect(readObd("43 00").codes).toEqual([]);
  });

  it("reads the readiness bits: a set bit is not complete", () => {
    const log = readObd("41 01 81 07 65 04");
    expect(log.lightOn).toBe(true);
    expect(log.readiness).toContainEqual({ monitor: "EVAP", complete: false });
    expect(log.readiness).toContainEqual({ monitor: "Catalyst", complete: true });
    expect(log.readiness.map((r) => r.monitor)).not.toContain("Secondary air");
    expect(readObd("41 01 00 07 65 00").readiness.every((r) => r.complete)).toBe(true);
  });

  it("scales monitor results of service 06 by their id, signed ones too, and says whether they passed", () => {
    const log = readObd("46 3C 81 FE 00 14 00 00 00 50 3D 82 FE FF EC 00 00 00 50");
    expect(log.monitorTests).toEqual([
      { monitor: "EVAP, 0.020 in", test: "81", value: 5, low: 0, high: 20, unit: "Pa", passed: true },
      { monitor: "Purge flow", test: "82", value: -5, low: 0, high: 20, unit: "Pa", passed: false },
    ]);
    expect(readObd("46 3C 81 7B 00 14 00 00 00 50").monitorTests[0]?.unit).toBe("raw");
  });

  it("reads the VIN, times, ECU ids, comments and requests; a refusal stays visible", () => {
    const log = readObd(
      "# start\n0.10 7DF 09 02\n0.18 7E8 49 02 01 4F 4E 44 5A 5A 5A 38 4B 39 42 41 30 31 32 33 34 35\n7F 06 12 # not now\n",
    );
    expect(log.vin).toBe("ONDZZZ8K9BA012345");
    expect(log.messages[0]).toMatchObject({ line: 2, seconds: 0.1, ecu: "7DF", service: "09", values: [] });
    expect(log.messages[2]?.values).toEqual([{ name: "Service 06 refused", value: "12" }]);
  });

  it.each(["41 0C 1", "hello", "41 0G", ""])("refuses %j with the line", (text) => {
    expect(() => readObd(text)).toThrow(BadInput);
  });

  it("loses no byte of any message and never throws on one (property)", () => {
    fc.assert(
      fc.property(fc.uint8Array({ minLength: 1, maxLength: 40 }), (bytes) => {
        const line = [...bytes].map((b) => b.toString(16).padStart(2, "0")).join(" ");
        expect(first(line)?.bytes.toLowerCase()).toBe(line);
      }),
    );
    for (const row of Object.values(PIDS))
      for (const v of row.values) expect(v.of(new Array(row.bytes).fill(0xff))).not.toBeNaN();
  });
});

describe("tank pressure of a scan log", () => {
  const log = (rows: string[]) =>
    readScanLog(new TextEncoder().encode(["Time (s),EVAP system vapor pressure (inH2O),Fuel level (%)", ...rows].join("\n")));
  it("is taken in Pa gauge over the log's clock, gaps left out", () => {
    const trace = tankTrace(log(["0,0.0,45", "1,,45", "2,-4.0,45", "3,-8.0,45"]));
    expect(trace.map(([t]) => t)).toEqual([0, 2, 3]);
    expect(trace[1]?.[1]).toBeCloseTo(-996.4, 1);
  });
  it("is thinned to means of a long log, and none where the log has none", () => {
    const long = tankTrace(log(Array.from({ length: 5000 }, (_, i) => `${i * 0.1},${-i / 1000},45`)));
    expect(long.length).toBeLessThanOrEqual(600);
    expect(long.every(([t], i) => i === 0 || t > (long[i - 1]?.[0] as number))).toBe(true);
    expect(tankTrace(readScanLog(new TextEncoder().encode("Time (s),RPM (rpm)\n0,700\n1,710\n")))).toEqual([]);
  });
});
