import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { CARS } from "../../../demo/cars";
import { type LogDialect, recordDrive, writeLog } from "../../../demo/drive";
import { DEFAULT_LIMITS } from "../shop/settings";
import { decimate } from "./decimate";
import { checkLogSize, detectDialect, detectEncoding, LARGEST_LOG } from "./dialect";
import { splitUnit } from "./headers";
import { bestGuesses, decidedOn } from "./mapping";
import { matchHeader } from "./match-header";
import { columnOf, readHead, readScanLog, type ScanLog, ScanLogReader } from "./read";
import { wasWarm } from "./standing";
import { findSteadyWindows, surveyPoints } from "./steady";

const bytes = (text: string) => new TextEncoder().encode(text);
const read = (text: string) => readScanLog(bytes(text));
const values = (log: ScanLog, id: Parameters<typeof columnOf>[1]) => [...(columnOf(log, id)?.values ?? [])];
const says = (work: () => unknown): string => {
  try {
    work();
    return "read without complaint";
  } catch (error) {
    return (error as Error).message;
  }
};

const drive = recordDrive(CARS.petrel.engine, 5);
const DIALECTS: readonly LogDialect[] = ["comma", "semicolon", "tab-utf16", "clock"];

describe("the same drive in every dialect", () => {
  it.each(DIALECTS)("%s gives the same channels in SI", (dialect) => {
    const log = readScanLog(writeLog(drive, dialect, false));
    expect(log.rows).toBe(drive.length);
    const maf = columnOf(log, "maf");
    for (const i of [0, 100, 300, drive.length - 1]) {
      const value = maf?.values[i] as number;
      if (Number.isFinite(value)) expect(value * 1000).toBeCloseTo(drive[i]?.maf as number, 1);
      expect(columnOf(log, "time")?.values[i]).toBeCloseTo(drive[i]?.seconds as number, 1);
      expect((columnOf(log, "map")?.values[i] as number) / 1000).toBeCloseTo(drive[i]?.map as number, -0.5);
      expect((columnOf(log, "coolant")?.values[i] as number) - 273.15).toBeCloseTo(drive[i]?.coolant as number, -0.3);
    }
    for (const id of ["rpm", "short-trim-1", "long-trim-1"] as const) expect(columnOf(log, id), id).toBeDefined();
  });

  it.each(DIALECTS)("%s gives the same survey", (dialect) => {
    const points = surveyPoints(findSteadyWindows(readScanLog(writeLog(drive, dialect, false)), DEFAULT_LIMITS));
    const reference = surveyPoints(findSteadyWindows(readScanLog(writeLog(drive, "comma", false)), DEFAULT_LIMITS));
    expect(points.length).toBe(reference.length);
    points.forEach((p, i) => {
      expect(p.rpm).toBeCloseTo(reference[i]?.rpm as number, -1);
      expect(p.maf.value / (reference[i]?.maf.value as number)).toBeCloseTo(1, 1);
      expect(p.banks[0]?.short).toBeCloseTo(reference[i]?.banks[0]?.short as number, 0);
    });
  });

  it("does not depend on where the stream is cut", () => {
    const whole = writeLog(drive, "clock", false);
    const reference = readScanLog(whole);
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 9000 }), { minLength: 1, maxLength: 12 }), (sizes) => {
        const reader = new ScanLogReader({ totalBytes: whole.length });
        let at = 0;
        for (let i = 0; at < whole.length; i++) {
          const size = sizes[i % sizes.length] as number;
          reader.push(whole.subarray(at, at + size));
          at += size;
        }
        const log = reader.finish();
        expect(log.rows).toBe(reference.rows);
        expect(values(log, "maf")).toEqual(values(reference, "maf"));
      }),
      { numRuns: 15 },
    );
  });
});

describe("dialect", () => {
  it("finds delimiter, decimal comma, preamble and units row", () => {
    const dialect = detectDialect("Recorder X\n\nZeit;Drehzahl;Luftmasse\ns;1/min;kg/h\n0,0;700;9,4\n0,5;705;9,5\n");
    expect(dialect).toMatchObject({ delimiter: ";", decimal: ",", headers: ["Zeit", "Drehzahl", "Luftmasse"] });
    expect(dialect.units).toEqual(["s", "1/min", "kg/h"]);
  });

  it("knows encodings by mark or by their zero bytes", () => {
    expect(detectEncoding(new Uint8Array([0xff, 0xfe, 65, 0]))).toBe("utf-16le");
    expect(detectEncoding(new Uint8Array([0xfe, 0xff, 0, 65]))).toBe("utf-16be");
    expect(detectEncoding(new Uint8Array([65, 0, 66, 0, 67, 0]))).toBe("utf-16le");
    expect(detectEncoding(bytes("Kühlmittel;°C"))).toBe("utf-8");
    expect(detectEncoding(new Uint8Array([75, 252, 104, 108]))).toBe("windows-1252");
  });

  it("keeps quoted cells whole, whatever stands in them", () => {
    const log = read('Time (s),Engine RPM,"MAF (g/s)",Remark\n0,700,2.5,"a, b"\n1,710,2.6,"c ""d"""\n');
    expect(values(log, "maf").map((v) => Math.round(v * 1e6))).toEqual([2500, 2600]);
    const inHeader = read('Time (s),"MAF, all (g/s)",Engine RPM\n0,2.5,700\n1,2.6,710\n');
    expect(values(inHeader, "rpm")).toEqual([700, 710]);
  });
});

describe("cells", () => {
  it("reads gaps and text in numeric columns as holes and counts the text", () => {
    const log = read("Time (s),RPM,MAF (g/s)\n0,700,2.5\n1,,n/a\n2,710,\n3,705,2.7\n");
    expect(values(log, "maf").map(Number.isFinite)).toEqual([true, false, false, true]);
    expect(columnOf(log, "maf")?.textCells).toBe(1);
  });

  it("skips repeated headers and says so", () => {
    const log = read("Time (s),RPM,MAF (g/s)\n0,700,2.5\nTime (s),RPM,MAF (g/s)\n1,710,2.6\n");
    expect(log.rows).toBe(2);
    expect(log.notes.join()).toMatch(/1 repeated header/);
  });

  it("takes clocks over midnight and milliseconds", () => {
    const night = read("Clock,RPM,MAF (g/s)\n23:59:58,700,2\n23:59:59.5,700,2\n00:00:01,700,2\n");
    expect(values(night, "time")).toEqual([0, 1.5, 3]);
    const ms = read("Time (ms),RPM,MAF (g/s)\n500,700,2\n1500,700,2\n");
    expect(values(ms, "time")).toEqual([0, 1]);
  });

  it("reads loop states in words and as J1979 status bits", () => {
    const log = read("Time (s),RPM,Fuel system status\n0,700,CL\n1,700,OL\n2,700,2\n3,700,1\n");
    expect(values(log, "loop")).toEqual([1, 0, 1, 0]);
  });
});

describe("headers", () => {
  it.each([
    ["Engine RPM (rpm)", "rpm"],
    ["Intake Manifold Absolute Pressure (kPa)", "map"],
    ["MAF air flow rate (g/s)", "maf"],
    ["Short term fuel trim bank 2 (%)", "short-trim-2"],
    ["LTFT B1 [%]", "long-trim-1"],
    ["STFT (%)", "short-trim-1"],
    ["Kühlmitteltemperatur (°C)", "coolant"],
    ["Barometric pressure (kPa)", "barometer"],
    ["Commanded EGR (%)", "egr"],
    ["AGR duty [%]", "egr"],
    ["Exhaust manifold pressure (kPa)", "exhaust-pressure"],
    ["DPF differential pressure (hPa)", "filter-pressure"],
    ["Particulate filter delta pressure (kPa)", "filter-pressure"],
    ["EGT (°C)", "exhaust-temperature"],
    ["CO (% vol)", "gas-co"],
    ["CO2 (%)", "gas-co2"],
    ["O2 [% vol]", "gas-o2"],
    ["HC (ppm hexane)", "gas-hc"],
    ["NO (ppm)", "gas-no"],
  ])("%s is %s", (header, id) => {
    const match = matchHeader(header, undefined, 0);
    expect(match.channel).toBe(id);
    expect(match.confidence).toBeGreaterThan(0.5);
    expect(match.confidence).toBeLessThanOrEqual(1);
  });

  it.each([
    "No",
    "O2 (V)",
    "O2 voltage",
    "EGR B duty (%)",
    "EGT bank 1 sensor 2 (°C)",
    "HC (ppm propane)",
    "CO ratio",
    "COcor (%)",
  ])("%s is not taken for what it looks like", (header) => {
    expect(matchHeader(header, undefined, 0).channel ?? "").not.toMatch(/^(gas-|egr|exhaust-)/);
  });

  it.each(["Battery voltage (V)", "Desired MAF (g/s)", "Gear", "Washer level (%)", "O2 sensor bank 1 sensor 2 (V)"])(
    "%s is nobody's channel",
    (header) => {
      expect(matchHeader(header, undefined, 0).channel).toBeUndefined();
    },
  );

  it("takes units from brackets, a second row or the tail, and says when it assumes one", () => {
    expect(splitUnit("MAP [inHg]", undefined)).toEqual({ name: "MAP", unitText: "inHg" });
    expect(matchHeader("MAF", "kg/h", 0)).toMatchObject({ unit: "kg/h", unitFrom: "file" });
    expect(matchHeader("MAP", undefined, 0)).toMatchObject({ unit: "kPa", unitFrom: "assumed" });
    const [sure, assumed] = [matchHeader("MAP (kPa)", undefined, 0), matchHeader("MAP", undefined, 0)];
    expect(assumed.confidence).toBeLessThan(sure.confidence);
  });

  it("never guesses an unknown unit", () => {
    const head = readHead(bytes("Time (s),RPM,MAF (furlongs)\n0,700,2\n1,700,2\n"));
    expect(head.problems[0]?.message).toMatch(/Unit "furlongs" of "MAF \(furlongs\)" is not known/);
  });

  it("remembers by signature, which changes with the headers", () => {
    const one = readHead(bytes("Time (s),RPM,MAF (g/s)\n0,700,2\n")).signature;
    const again = readHead(bytes("Time (s),RPM,MAF (g/s)\n5,900,3\n")).signature;
    const other = readHead(bytes("Time (s),RPM,MAF (kg/h)\n0,700,2\n")).signature;
    expect(again).toBe(one);
    expect(other).not.toBe(one);
  });

  it("takes the user's mapping over its own", () => {
    const text = "Time (s),RPM,Sensor 7\n0,700,9\n1,700,9\n";
    const log = readScanLog(bytes(text), { "Sensor 7": { channel: "maf", unit: "kg/h" } });
    expect((columnOf(log, "maf")?.values[0] as number) * 3600).toBeCloseTo(9, 9);
    expect(readHead(bytes(text), { RPM: { channel: null } }).matches[1]?.channel).toBeUndefined();
  });
});

describe("bad input", () => {
  it.each([
    ["an empty file", () => read(""), /empty/],
    ["blank lines only", () => read("\n\n  \n"), /empty/],
    ["a binary file", () => readScanLog(new Uint8Array(2000).map((_, i) => (i * 37) % 256)), /not a text file/],
    ["prose", () => read("Dear reader,\nthere are no numbers here.\n"), /No table found/],
    ["headers without rows", () => read("Time (s),RPM,MAF (g/s)\n"), /No table found|no rows/],
    ["no known channel", () => read("Foo,Bar\n1,2\n3,4\n"), /No known channel among 2 columns/],
    [
      "two headers for one channel",
      () => read("Time (s),MAF (g/s),MAF Sensor (g/s),RPM\n0,2,2,700\n1,2,2,700\n"),
      /both look like MAF flow: choose which one counts/,
    ],
    ["time running backwards", () => read("Time (s),RPM,MAF (g/s)\n0,700,2\n5,700,2\n3,700,2\n"), /runs backwards at row 3/],
  ])("%s is refused with what to do", (_name, work, message) => {
    expect(says(work)).toMatch(message);
  });

  it("refuses by size before a byte is read", () => {
    expect(says(() => checkLogSize(LARGEST_LOG + 1))).toMatch(/150 MB; logs up to 150 MB are read/);
    expect(says(() => checkLogSize(0))).toMatch(/empty/);
    expect(says(() => checkLogSize(LARGEST_LOG))).toBe("read without complaint");
  });

  it("names the header or the row where it stopped", () => {
    try {
      read("Time (s),RPM,MAF (g/s)\n0,700,2\n5,700,2\n3,700,2\n");
      expect.unreachable();
    } catch (error) {
      expect(error).toMatchObject({ name: "ScanLogError", place: "row 3" });
    }
  });
});

describe("steady windows", () => {
  const table = (rows: [number, number, number, number?, string?][]) =>
    read(
      `Time (s),RPM,MAF (g/s),ECT (°C),Loop status\n${rows.map(([t, rpm, maf, ect = 90, loop = "closed"]) => [t, rpm, maf, ect, loop].join(",")).join("\n")}\n`,
    );
  const hold = (from: number, to: number, rpm: number, maf: number, ect?: number, loop?: string) =>
    Array.from({ length: (to - from) * 2 + 1 }, (_, i): [number, number, number, number?, string?] => [
      from + i / 2,
      rpm,
      maf,
      ect,
      loop,
    ]);
  const windows = (log: ScanLog) => findSteadyWindows(log, DEFAULT_LIMITS).map((w) => [w.from, w.to]);

  it("finds each held point and not the ramp between", () => {
    const ramp = Array.from({ length: 8 }, (_, i): [number, number, number] => [10.5 + i / 2, 700 + i * 120, 2.5 + i * 0.6]);
    const found = windows(table([...hold(0, 10, 700, 2.5), ...ramp, ...hold(15, 25, 1600, 7)]));
    // The first steps of a ramp lie within the limits of what was held.
    expect(found).toEqual([
      [0, 10.5],
      [14, 25],
    ]);
  });

  it("leaves out what is too short, cold, in open loop or broken by a gap", () => {
    expect(windows(table(hold(0, 4, 700, 2.5)))).toEqual([]);
    expect(windows(table(hold(0, 10, 700, 2.5, 60)))).toEqual([]);
    expect(windows(table(hold(0, 10, 700, 2.5, 90, "open")))).toEqual([]);
    expect(windows(table([...hold(0, 6, 700, 2.5), ...hold(20, 26, 700, 2.5)]))).toEqual([
      [0, 6],
      [20, 26],
    ]);
  });

  it("keeps every window within its limits and apart from the next (property)", () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 600, max: 900 }), { minLength: 20, maxLength: 150 }), (speeds) => {
        const log = table(speeds.map((rpm, i) => [i / 2, rpm, 2.5]));
        const found = findSteadyWindows(log, DEFAULT_LIMITS);
        let end = -1;
        for (const w of found) {
          const inside = speeds.slice(w.rows[0], w.rows[1]);
          expect(Math.max(...inside) - Math.min(...inside)).toBeLessThanOrEqual(2 * DEFAULT_LIMITS.steadyRpm.value);
          expect(w.to - w.from).toBeGreaterThanOrEqual(DEFAULT_LIMITS.steadyTime.value);
          expect(w.from).toBeGreaterThan(end);
          end = w.to;
        }
      }),
      { numRuns: 60 },
    );
  });

  it("makes one survey point of windows at the same operating point", () => {
    const log = readScanLog(writeLog(drive, "comma", false));
    const found = findSteadyWindows(log, DEFAULT_LIMITS);
    const points = surveyPoints(found);
    expect(points.length).toBeLessThan(found.length);
    expect(points.length).toBeGreaterThanOrEqual(5);
    expect(points.map((p) => p.maf.value)).toEqual(points.map((p) => p.maf.value).toSorted((a, b) => a - b));
    expect(points[0]?.closedLoop).toBe(true);
  });
});

describe("whether an engine was warm", () => {
  const coolant = (...celsius: (number | "")[]) =>
    read(`Time (s),RPM,ECT (°C)\n${celsius.map((t, i) => `${i},${i === 0 ? 0 : 800},${t}`).join("\n")}\n`);
  const WARM = 273.15 + 75;
  it("is said by a coolant that was warm, or cold, all along with the engine running", () => {
    expect(wasWarm(coolant(20, 80, 85, 90), WARM)).toBe(true);
    expect(wasWarm(coolant(20, 30, "", 60), WARM)).toBe(false);
  });
  it("is left open where it warmed up meanwhile, never ran, or no coolant was logged", () => {
    expect(wasWarm(coolant(20, 60, 85, 90), WARM)).toBeUndefined();
    expect(wasWarm(coolant(90), WARM)).toBeUndefined();
    expect(wasWarm(read("Time (s),RPM,MAF (g/s)\n0,800,2.6\n1,800,2.6\n"), WARM)).toBeUndefined();
  });
});

describe("decimation", () => {
  it("keeps spikes, stays under its width and inside the stretch asked for", () => {
    const rows = Array.from({ length: 5000 }, (_, i) => `${i / 10},${i === 2345 ? 4000 : 700},2.5`);
    const log = read(`Time (s),RPM,MAF (g/s)\n${rows.join("\n")}\n`);
    const drawn = decimate(log, ["rpm"], 0, 500, 200);
    expect(drawn.length).toBeLessThanOrEqual(202);
    expect(Math.max(...drawn.map((d) => d.rpm ?? 0))).toBe(4000);
    const part = decimate(log, ["rpm"], 100, 110, 1000);
    expect(part[0]?.time).toBe(100);
    expect(part.at(-1)?.time).toBeLessThanOrEqual(110);
    expect(decimate(log, ["maf", "coolant"], 0, 1, 10).every((d) => d.coolant === undefined)).toBe(true);
  });
});

describe("anything at all (properties)", () => {
  const cell = fc.oneof(
    fc.constantFrom("", "n/a", "12.5", "-3", "1,5", "1e3", "09:14:05", "CL", '"quoted, cell"', "Time (s)", "RPM", "°C", "\u0000"),
    fc.string({ maxLength: 8 }),
  );
  const text = fc
    .tuple(
      fc.constantFrom(",", ";", "\t", "|"),
      fc.array(fc.array(cell, { minLength: 1, maxLength: 6 }), { minLength: 1, maxLength: 12 }),
    )
    .map(([delimiter, rows]) => rows.map((row) => row.join(delimiter)).join("\n"));

  it("is read or refused with words, and never breaks the reader", () => {
    fc.assert(
      fc.property(text, (content) => {
        try {
          const log = read(content);
          expect(log.rows).toBeGreaterThan(0);
          for (const column of log.columns) expect(column.values.length).toBe(log.rows);
        } catch (error) {
          expect((error as Error).name).toBe("ScanLogError");
          expect((error as Error).message.length).toBeGreaterThan(15);
        }
      }),
      { numRuns: 300 },
    );
  });

  it("keeps every value of a sound table (property)", () => {
    const row = fc.tuple(
      fc.integer({ min: 500, max: 6000 }),
      fc.integer({ min: 100, max: 9000 }),
      fc.integer({ min: -250, max: 250 }),
    );
    fc.assert(
      fc.property(fc.array(row, { minLength: 2, maxLength: 40 }), fc.constantFrom(".", ","), (rows, decimal) => {
        const number = (n: number) => String(n).replace(".", decimal);
        const body = rows.map(([rpm, maf, trim], i) => [number(i / 2), rpm, number(maf / 100), number(trim / 10)].join(";"));
        const log = read(`Time (s);RPM;MAF (g/s);STFT (%)\n${body.join("\n")}\n`);
        expect(values(log, "rpm")).toEqual(rows.map(([rpm]) => rpm));
        values(log, "maf").forEach((v, i) => {
          expect(v).toBeCloseTo((rows[i]?.[1] as number) / 1e5, 9);
        });
        values(log, "short-trim-1").forEach((v, i) => {
          expect(v).toBeCloseTo((rows[i]?.[2] as number) / 10, 9);
        });
      }),
      { numRuns: 60 },
    );
  });
});

describe("what tools write that nobody told us of", () => {
  const RUN = { displacement: 1.6e-3, induction: "natural", fuel: "petrol" } as const;
  const rows = (of: (i: number) => readonly (string | number)[], delimiter = ",") =>
    Array.from({ length: 40 }, (_, i) => of(i).join(delimiter)).join("\n");
  const problems = (text: string) => readHead(bytes(text), undefined, RUN).problems.map((p) => p.message);
  const si = (text: string, id: Parameters<typeof columnOf>[1], row = 0) => {
    const log = readScanLog(bytes(text), undefined, RUN);
    return columnOf(log, id)?.values[row];
  };

  it("takes no unknown unit for an acronym: one that nobody knows is asked, one that says the name again is none", () => {
    expect(problems(`Time (s),MAF (SCFM)\n${rows((i) => [i, 2.6 + i / 100])}`)).toEqual([
      expect.stringMatching(/Unit "SCFM" of/),
    ]);
    expect(si(`Time (s),Air flow rate (MAF) (g/s)\n${rows((i) => [i, 2.6])}`, "maf")).toBeCloseTo(2.6e-3, 9);
    expect(si(`Time (s),Air flow rate (MAF)(kg/h)\n${rows((i) => [i, 9.36])}`, "maf")).toBeCloseTo(2.6e-3, 9);
    expect(si(`Time (s),Engine speed (RPM) 1/min\n${rows((i) => [i, 740])}`, "rpm")).toBe(740);
    expect(si(`Time (s),Engine speed (ECM) (rpm)\n${rows((i) => [i, 740])}`, "rpm")).toBe(740);
  });
  it("reads the standard's own words in the standard's units, where the numbers can be so", () => {
    const log = (coolant: number, flow: number) =>
      `TIME,RPM,MAF,ECT,SHRTFT1,LONGFT1\n${rows((i) => [i, 740 + i, flow, coolant, 0.5, 3])}`;
    expect([problems(log(90, 2.6)), si(log(90, 2.6), "maf"), si(log(90, 2.6), "coolant")]).toEqual([
      [],
      expect.closeTo(2.6e-3, 9),
      expect.closeTo(363.15, 6),
    ]);
    // A name of a tool's own beside them is in whatever unit the tool likes: 60 may be °C or °F.
    const mixed = `TIME,RPM,Intake air temp,SHRTFT1\n${rows((i) => [i, 740 + i, 60, 0.5])}`;
    expect(readHead(bytes(mixed), undefined, RUN).problems.map((p) => p.header)).toEqual(["Intake air temp"]);
    // Fahrenheit, whatever the header's words.
    expect(si(log(195, 2.6), "coolant")).toBeCloseTo(363.7, 1);
    // A flow in g/s that no engine of 1.6 L has: it is asked, or in another unit.
    expect(si(log(90, 9.4), "maf")).not.toBeCloseTo(9.4e-3, 6);
  });
  it("takes one of two columns that read alike, and asks where they differ, or where nothing moves", () => {
    const twin = (of: (i: number) => readonly number[]) =>
      problems(`Time (s),Engine RPM,Engine RPM\n${rows((i) => [i, ...of(i)])}`);
    expect(twin((i) => [740 + 3 * i, 741 + 3 * i])).toEqual([]);
    expect(twin((i) => [740 + 3 * i, 900 + 5 * i])).toEqual([expect.stringMatching(/choose which one counts/)]);
    expect(twin(() => [0, 0])).toEqual([expect.stringMatching(/choose which one counts/)]);
    expect(problems(`Time (s),MAF (g/s),MAF (kg/h)\n${rows((i) => [i, 2 + i, 7.2 + 3.6 * i])}`)).toEqual([
      expect.stringMatching(/choose which one counts/),
    ]);
  });
  it("reads a clock beside every channel, days and their fraction, and a date beside a time over midnight", () => {
    const beside = `Time,Engine RPM (rpm),Time,MAF (g/s)\n${rows((i) => [i / 2, 740, i / 2 + 0.1, 2.6])}`;
    expect([si(beside, "time", 10), si(beside, "maf", 10)]).toEqual([5, expect.closeTo(2.6e-3, 9)]);
    const days = `Time;RPM;MAF (g/s)\n${rows((i) => [(46_083.4 + i / 2 / 86_400).toFixed(8), 740, 2.6], ";")}`;
    expect(si(days, "time", 20)).toBeCloseTo(10, 2);
    // A second of a fast log is no day.
    expect(si(`Time (s);RPM;MAF (g/s)\n${rows((i) => [(i / 40).toFixed(3), 740, 2.6], ";")}`, "time", 20)).toBeCloseTo(0.5, 6);
    const midnight = `Date,Time,RPM,MAF (g/s)\n${rows((i) => [i < 20 ? "2026-03-02" : "2026-03-03", new Date(Date.UTC(2026, 2, 2, 23, 59, 40 + i)).toISOString().slice(11, 19), 740, 2.6])}`;
    expect(si(midnight, "time", 30)).toBe(30);
  });
  it("reads a log again as it was decided on, though its headers stand there more than once", () => {
    const beside = `Time,Engine RPM (rpm),Time,MAF (g/s)\n${rows((i) => [i / 2, 740 + i, i / 2 + 0.1, 2.6])}`;
    const again = decidedOn(readHead(bytes(beside), undefined, RUN).matches);
    expect(again.Time).toEqual({ channel: "time" });
    const log = readScanLog(bytes(beside), again, RUN);
    expect([columnOf(log, "time")?.column, columnOf(log, "time")?.values[10]]).toEqual([0, 5]);
  });
  it("guesses a unit that is asked for by what fits, and leaves what fits none", () => {
    const text = `Time (s),RPM,MAF,ECT\n${rows((i) => [i, 740, 4.2, 5000])}`;
    const { matches } = readHead(bytes(text), undefined, {});
    const guessed = bestGuesses(matches);
    expect(Object.keys(guessed)).toEqual(["MAF"]);
    expect(readHead(bytes(text), guessed, {}).problems.map((p) => p.header)).toEqual(["ECT"]);
  });
  it("reads numbers with their unit behind them, thousands in quotes, and takes no request code for such a number", () => {
    const cells = `Time;RPM;MAF;ECT\n${rows((i) => [i, "1'740 rpm", "9,36 kg/h", "195,8 deg F"], ";")}`;
    expect(si(cells, "rpm")).toBe(1740);
    expect(si(cells, "maf")).toBeCloseTo(2.6e-3, 9);
    expect(si(cells, "coolant")).toBeCloseTo(364.15, 2);
    expect(si(`Time,010C (rpm),0110 (g/s)\n${rows((i) => [i, 740, 2.6])}`, "maf")).toBeCloseTo(2.6e-3, 9);
  });
  it.each([
    ["Rotação do motor", "rpm"],
    ["Temperatura do líquido de arrefecimento", "coolant"],
    ["Bränslekorrigering lång sikt bank 2", "long-trim-2"],
    ["Insugsrörstryck", "map"],
    ["Kølevæsketemperatur", "coolant"],
    ["Kortsigtet brændstoftrim bank 1", "short-trim-1"],
    ["Průtok vzduchu", "maf"],
    ["Krátkodobá korekce směsi řada 2", "short-trim-2"],
    ["Motor devri", "rpm"],
    ["Uzun vadeli yakıt ayarı sıra 1", "long-trim-1"],
    ["Desired boost pressure", "charge-asked"],
    ["Min Otáčky", undefined],
    ["Devirdaim pompası", undefined],
  ])("%s is %s", (header, channel) => {
    const { channel: found, confidence } = matchHeader(header, undefined, 0);
    expect(confidence >= 0.5 ? found : undefined).toBe(channel);
  });
});
