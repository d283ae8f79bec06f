import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { BadInput } from "../input";
import { readScanReport } from "./scan-report";

const REPORT = `Scan of 14 March
Vehicle: Ondrell Petrel 1.6   VIN: 4ZZPT2B00E1000123
Module: Engine
P0171  System too lean, bank 1   Confirmed
  Freeze frame: 720 rpm, load 24 %, coolant 92 °C
  STFT B1 +12.5 %, LTFT bank 1 18 %
P0442  EVAP leak detected, small leak (pending)
P0135  O2 heater current, circuit intermittent
Module: Brakes
C1234-12 Wheel speed: history
P0300  Misfire: test passed
Fuel system: complete
EVAP monitor: not ready
`;

describe("a scan report", () => {
  it("gives VIN, codes with status, module and frozen operating point, and monitors", () => {
    const read = readScanReport(REPORT);
    expect(read.vin).toBe("4ZZPT2B00E1000123");
    expect(read.codes).toEqual([
      {
        code: "P0171",
        status: "stored",
        module: "Engine",
        frame: { rpm: 720, load: 24, coolant: { value: 92, unit: "°C" }, short: 12.5, long: 18 },
        freezeFrame: "Freeze frame: 720 rpm, load 24 %, coolant 92 °C; STFT B1 +12.5 %, LTFT bank 1 18 %",
      },
      { code: "P0442", status: "pending", module: "Engine" },
      { code: "P0135", status: "stored", module: "Engine" },
      { code: "C1234-12", status: "history", module: "Brakes" },
    ]);
    expect(read.left.map((l) => l.code)).toEqual(["P0300"]);
    expect(read.readiness).toEqual([
      { monitor: "Fuel system", complete: true },
      { monitor: "EVAP", complete: false },
    ]);
    // Complete says that it ran, not that it passed.
    expect(read.monitors).toEqual([{ of: "evap", result: "not-complete", readBy: "scan report" }]);
    expect(read.modules).toEqual(["Engine", "Brakes"]);
  });

  it("takes a status from the heading above, and from the code's own line before that", () => {
    const read = readScanReport("Pending codes:\nP0455 Large leak\nP0171 Too lean - current\nPermanent DTCs\nP0420");
    expect(read.codes.map((c) => [c.code, c.status])).toEqual([
      ["P0455", "pending"],
      ["P0171", "current"],
      ["P0420", "permanent"],
    ]);
  });

  it.each([
    ["P0171 not present", []],
    ["P0171 present: no", []],
    ["P0171 no fault", []],
    ["P0171 confirmed, not currently present", ["stored"]],
    ["P0171 pending: yes, confirmed: no", ["pending"]],
    ["P0171 not confirmed", ["pending"]],
    ["P0171 | Current | Too lean", ["current"]],
    ["P0171  Current  Too lean", ["current"]],
    ["P0031 heater current too low", ["stored"]],
    ["p0171 stored", ["stored"]],
  ])("%s: %j", (line, statuses) => {
    const read = readScanReport(`${line}\nVIN 4ZZPT2B00E1000123`);
    expect(read.codes.map((c) => c.status)).toEqual(statuses);
    expect(read.codes.length + read.left.length).toBe(1);
  });

  it.each(["Part XP0171", "P01715", "P0G71", "Serial P0171X9", "AB-P0171", "nothing here", ""])("finds no code in %j", (text) => {
    expect(() => readScanReport(text)).toThrow(BadInput);
  });

  it("gives each code its own frame, and none a frame of another", () => {
    const read = readScanReport(
      "P0171 stored 720 rpm load 24,5 %\nP0300 stored\nFreeze frame P0300\nEngine speed: 2150\nECT 190 °F",
    );
    expect(read.codes[0]?.frame).toEqual({ rpm: 720, load: 24.5 });
    expect(read.codes[1]?.frame).toEqual({ rpm: 2150, coolant: { value: 190, unit: "°F" } });
  });

  it("takes no trim of the other bank, and no value that cannot be one", () => {
    expect(readScanReport("P0174 stored STFT2 9 % LTFT B2 11 % 99999 rpm").codes[0]).not.toHaveProperty("frame");
  });

  it("takes no VIN where two stand unlabelled", () => {
    expect(readScanReport("P0171 4ZZPT2B00E1000123 4ZZPT2109E1000123").vin).toBeUndefined();
    expect(readScanReport("P0171 4ZZPT2B00E1000123").vin).toBe("4ZZPT2B00E1000123");
  });

  it("reads a hex log: every code once, frames by their number, monitors by their own limits", () => {
    const read = readScanReport(
      [
        "47 01 01 71 # pending as well",
        "43 02 01 71 04 42",
        "42 02 00 01 71 0C 00 0B E8",
        "42 05 00 7B",
        "42 02 01 04 42",
        "42 0C 01 1A F8",
        "46 3C 81 28 00 64 00 00 00 50",
        "46 81 10 0B 00 00 00 00 00 00",
        "41 01 82 07 65 04",
        "49 02 01 34 5A 5A 50 54 32 42 30 30 45 31 30 30 30 31 32 33",
      ].join("\n"),
    );
    expect(read.vin).toBe("4ZZPT2B00E1000123");
    expect(read.log?.messages).toHaveLength(10);
    expect(read.codes).toEqual([
      { code: "P0171", status: "stored", frame: { rpm: 762, coolant: { value: 83, unit: "°C" } } },
      { code: "P0442", status: "stored", frame: { rpm: 1726 } },
    ]);
    expect(read.monitors).toEqual([
      expect.objectContaining({
        of: "evap",
        result: "failed",
        values: [expect.objectContaining({ name: expect.stringContaining("EVAP, 0.020 in") })],
      }),
    ]);
  });

  it("never says that a monitor passed: values stay in the ECU from before a repair until they are cleared", () => {
    const read = readScanReport("43 02 01 71 04 42\n46 3C 81 FE 00 14 00 00 00 50\n41 01 00 07 65 00");
    expect(read.monitors).toEqual([]);
    expect(read.readiness).toContainEqual({ monitor: "EVAP", complete: true });
  });

  it.each([
    ["C1234", ["C1234"]],
    ["B1325\nC0035", ["B1325", "C0035"]],
  ])("takes a body or chassis code alone for no bytes: %j", (text, codes) => {
    expect(readScanReport(text).codes.map((c) => c.code)).toEqual(codes);
  });

  it.each(["No pending codes", "Pending codes: none", "Pending DTCs: 0"])("gives nothing below %j that status", (heading) => {
    expect(readScanReport(`${heading}\nP0171 Too lean`).codes[0]?.status).toBe("stored");
  });

  it("reads any text or refuses it in words", () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string({ unit: "binary", maxLength: 400 }),
          fc.array(fc.constantFrom(...REPORT.split("\n"))).map((l) => l.join("\n")),
        ),
        (text) => {
          try {
            const { codes, left } = readScanReport(text);
            const all = [...codes, ...left].map((c) => c.code);
            expect(new Set(all).size).toBe(all.length);
          } catch (e) {
            expect(e).toBeInstanceOf(BadInput);
          }
        },
      ),
    );
  });
});
