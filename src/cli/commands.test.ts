import { spawn, spawnSync } from "node:child_process";
import { mkdtempSync, rmSync, truncateSync, utimesSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, describe, expect, it } from "vitest";
import { hold } from "@/core/checks/records.fixture";
import { NATURAL } from "@/core/core.fixture";
import { BadInput } from "@/core/input";
import { canonicalJson, toJobFile } from "@/core/journal";
import { found, JOB, NOW, proved, SHOP } from "@/core/journal/journal.fixture";
import { CARS } from "../../demo/cars";
import { recordDrive, writeLog } from "../../demo/drive";
import { simulateTank } from "../core/gas/simulated-tank.fixture";
import { caseCode } from "../core/practice/code";
import { COMMANDS } from "./commands";

// biome-ignore lint/suspicious/noExplicitAny: what a command answers is judged field by field
type Answer = any;
const run = async (name: string, input: unknown, args: string[] = []): Promise<Answer> =>
  COMMANDS[name]?.run(typeof input === "string" ? input : JSON.stringify(input), args);
const refused = async (name: string, input: unknown, args: string[] = []): Promise<string> => {
  try {
    await run(name, input, args);
    return "taken";
  } catch (error) {
    if (!(error instanceof BadInput)) throw error;
    return `${error.path}: ${error.message}`;
  }
};

const pressure = (value: number, unit: string, kind?: string) => ({ value, unit, ...(kind ? { kind } : {}) });
const celsius = (value: number) => ({ value, unit: "°C" });
const folder = mkdtempSync(join(tmpdir(), "pelota-cli-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const fileOf = (name: string, bytes: Uint8Array | string) => {
  const path = join(folder, name);
  writeFileSync(path, bytes);
  return path;
};

describe("orifice and leak-size", () => {
  const upstream = (inH2O: number) => pressure(101325 + inH2O * 249.0889, "Pa", "absolute");
  it.each([
    [0.01, 10, 0.119],
    [0.02, 13, 0.543],
    [0.04, 10, 1.907],
    [0.04, 13, 2.174],
  ])("%f in at %f inH2O passes %f L/min, and back", async (inch, inH2O, litres) => {
    const hole = {
      upstream: upstream(inH2O),
      downstream: pressure(101325, "Pa", "absolute"),
      temperature: celsius(20),
      diameter: { value: inch, unit: "in" },
      dischargeCoefficient: 0.61,
    };
    const flow = await run("orifice", hole);
    expect(flow.volumeFlow).toMatchObject({ unit: "L/min" });
    expect(flow.volumeFlow.value).toBeCloseTo(litres, 3);
    expect(flow).toMatchObject({ massFlow: { unit: "g/s" }, choked: false });
    const back = await run("leak-size", {
      flow: flow.volumeFlow,
      pressure: pressure(inH2O, "inH2O", "gauge"),
      ambient: pressure(101325, "Pa", "absolute"),
      temperature: celsius(20),
    });
    expect(back.diameter.value / (inch * 25.4)).toBeCloseTo(1, 6);
    const byMass = await run("leak-size", {
      flow: flow.massFlow,
      pressure: pressure(inH2O, "inH2O"),
      ambient: pressure(1013.25, "hPa"),
      temperature: { value: 68, unit: "°F" },
    });
    expect(byMass.diameter.value).toBeCloseTo(back.diameter.value, 5);
  });

  it("says when the hole is choked", async () => {
    const hole = {
      upstream: pressure(101.325, "kPa", "absolute"),
      downstream: pressure(33, "kPa", "absolute"),
      temperature: celsius(20),
      diameter: { value: 2, unit: "mm" },
    };
    expect((await run("orifice", hole)).choked).toBe(true);
  });

  it.each([
    ["orifice", {}, /upstream/],
    ["orifice", "{", /not JSON/],
    ["orifice", "", /not JSON/],
    ["orifice", { upstream: pressure(1, "bar", "gauge") }, /upstream.*absolute, not gauge/],
    ["orifice", { upstream: pressure(-1, "bar", "absolute") }, /upstream/],
    ["orifice", { upstream: pressure(1, "stone", "absolute") }, /unit "stone" is not known/],
    ["leak-size", { flow: { value: 1, unit: "mm" } }, /flow/],
    [
      "leak-size",
      {
        flow: { value: 1, unit: "L/min" },
        pressure: pressure(13, "inH2O", "absolute"),
        ambient: pressure(1013, "hPa"),
        temperature: celsius(20),
      },
      /pressure is gauge, not absolute/,
    ],
    [
      "leak-size",
      {
        flow: { value: 1, unit: "L/min" },
        pressure: pressure(0, "inH2O"),
        ambient: pressure(1013, "hPa"),
        temperature: celsius(20),
      },
      /no pressure across the leak/,
    ],
    [
      "leak-size",
      {
        flow: { value: 1, unit: "L/min" },
        pressure: pressure(13, "inH2O"),
        ambient: pressure(1013, "hPa"),
        temperature: celsius(20),
        extra: 1,
      },
      /unknown key: extra/,
    ],
  ])("%s refuses %j", async (name, input, message) => {
    expect(await refused(name, input)).toMatch(message);
  });
});

describe("decay", () => {
  const truth = {
    volume: 0.03,
    diameter: 0.5e-3,
    wallTime: 25,
    held: 90,
    drift: 0,
    pressure: 2491,
    ambient: 101325,
    temperature: 293.15,
    duration: 150,
    every: 3,
  };
  const samplesOf = (change: Partial<Parameters<typeof simulateTank>[0]> = {}) => {
    const tank = simulateTank({ ...truth, ...change });
    return tank.times.map((t, i) => [t, (tank.pressures[i] as number) / 249.0889]);
  };
  const test = {
    samples: samplesOf(),
    unit: "inH2O",
    volume: { value: 30, unit: "L" },
    ambient: pressure(1013.25, "hPa", "absolute"),
    temperature: celsius(20),
  };

  it("sizes the hole with its interval, and only judges when it may", async () => {
    const free = await run("decay", test);
    expect(free.outcome).toBe("unsure");
    expect(free.diameter.value).toBeGreaterThan(0.45);
    expect(free.diameter.value).toBeLessThan(0.55);
    expect(free.low.value).toBeLessThanOrEqual(free.diameter.value);
    expect(free.high.value).toBeGreaterThanOrEqual(free.diameter.value);
    expect(free.smallestVisible.unit).toBe("mm");
    const required = { value: 0.3, unit: "mm" };
    expect((await run("decay", { ...test, held: 90, required })).outcome).toBe("fail");
    expect((await run("decay", { ...test, held: 20, required })).outcome).toBe("unsure");
    expect((await run("decay", { ...test, held: { value: 2, unit: "min" }, required })).outcome).toBe("fail");
  });

  it("frees itself from a wrong volume by a reference hole", async () => {
    const reference = { diameter: { value: 0.508, unit: "mm" }, samples: samplesOf({ extraHole: 0.508e-3 }) };
    const result = await run("decay", { ...test, volume: { value: 45, unit: "L" }, held: 90, reference });
    expect(result.diameter.value).toBeGreaterThan(0.45);
    expect(result.diameter.value).toBeLessThan(0.55);
  });

  it.each([
    [
      {
        samples: [
          [0, 10],
          [1, 9],
        ],
      },
      /at least 4 samples/,
    ],
    [
      {
        samples: [
          [0, 10],
          [2, 9],
          [1, 8],
          [3, 7],
        ],
      },
      /rise in time/,
    ],
    [{ unit: "furlong" }, /unit/],
    [{ volume: { value: 30, unit: "mm" } }, /volume/],
    [{ held: -4 }, /held/],
  ])("refuses %j", async (change, message) => {
    expect(await refused("decay", { ...test, ...change })).toMatch(message);
  });
});

describe("trims", () => {
  const at = (rpm: number, maf: number, map: number, long: number) => ({
    rpm,
    maf: { value: maf, unit: "g/s" },
    map: pressure(map, "kPa", "absolute"),
    banks: [{ short: 0, long }],
  });
  const survey = {
    ambient: pressure(1013.25, "hPa", "absolute"),
    intakeTemperature: celsius(20),
    displacement: { value: 1.6, unit: "L" },
    induction: "natural",
    metering: "maf",
    points: [at(720, 2.6, 33, 17.6), at(1500, 5.2, 30, 8.8), at(2500, 10, 30, 4.6), at(2200, 20, 62, 2.2), at(3600, 55, 94, 0.3)],
  };

  it("gives shapes best first, error in percent and a hole of about 2 mm", async () => {
    const { banks } = await run("trims", survey);
    expect(banks).toHaveLength(1);
    expect(banks[0].shapes[0]).toMatchObject({ id: "fades-with-flow" });
    expect(banks[0].shapes[0].members).toContain("vacuum branch");
    expect(Math.abs(banks[0].error)).toBeLessThan(3);
    expect(banks[0].hole.low.value).toBeLessThan(2);
    expect(banks[0].hole.high.value).toBeGreaterThan(2);
    expect(banks[0].observation).toBe("lean-fades-with-flow");
  });

  it.each([
    [{ metering: "map" }, /metering: A speed-density engine meters a manifold leak/],
    [{ points: [] }, /points/],
    [{ induction: "steam" }, /induction/],
    [{ points: [{ ...at(720, 2.6, 33, 1), map: pressure(-33, "kPa", "absolute") }] }, /points\[0\].map/],
    [{ points: [{ ...at(720, 2.6, 33, 1), map: pressure(20, "inHg", "vacuum") }] }, /absolute, not vacuum/],
  ])("refuses %j", async (change, message) => {
    expect(await refused("trims", { ...survey, ...change })).toMatch(message);
  });
});

describe("read-log", () => {
  it("names channels with unit and confidence, rows and steady windows", async () => {
    const path = fileOf("drive.csv", writeLog(recordDrive(CARS.heron.engine, 3), "semicolon", false));
    const log = await run("read-log", "", [path]);
    const channel = (id: string) => log.channels.find((c: { channel: string }) => c.channel === id);
    expect(log.rows).toBeGreaterThan(500);
    expect(channel("maf")).toMatchObject({ unit: "kg/h", unitFrom: "file" });
    expect(channel("long-trim-2").confidence).toBeGreaterThan(0.5);
    expect(log.steadyWindows.length).toBeGreaterThanOrEqual(5);
    expect(log.surveyPoints[0].banks).toHaveLength(2);
  });

  it("takes a mapping as the second argument", async () => {
    const path = fileOf("odd.csv", "Time (s),RPM,Sensor 7\n0,700,9\n1,700,9\n");
    const log = await run("read-log", "", [path, '{"Sensor 7":{"channel":"maf","unit":"kg/h"}}']);
    expect(log.channels[2]).toMatchObject({ channel: "maf", confidence: 1, unit: "kg/h" });
    expect(await refused("read-log", "", [path, '{"Sensor 7":{"channel":"tea"}}'])).toMatch(/no such channel/);
  });

  it("refuses what is no log, each with its reason", async () => {
    expect(await refused("read-log", "")).toMatch(/Name the CSV file/);
    expect(await refused("read-log", "", [join(folder, "nowhere.csv")])).toMatch(/There is no file/);
    expect(await refused("read-log", "", [fileOf("empty.csv", "")])).toMatch(/file is empty/);
    expect(await refused("read-log", "", [fileOf("binary.csv", new Uint8Array(5000).fill(1))])).toMatch(/not a text file/);
    const large = fileOf("large.csv", "Time,RPM\n");
    truncateSync(large, 151 * 1024 * 1024);
    expect(await refused("read-log", "", [large])).toMatch(/151 MB; logs up to 150 MB are read/);
  });
});

describe("assess", () => {
  const { job } = proved();
  const file = toJobFile(JOB, SHOP, job.entries, new Date(NOW).toISOString());

  it("folds a job file to suspects, next checks, verdicts, off-the-car list and what blocks closing", async () => {
    const state = await run("assess", file);
    expect(canonicalJson(state)).toBe(canonicalJson(job.state()));
    expect(state.blocks.close).toEqual([]);
    for (const key of ["suspects", "next", "checks", "offCar"]) expect(Array.isArray(state[key])).toBe(true);
  });

  it("refuses a truncated or newer file", async () => {
    expect(await refused("assess", JSON.stringify(file).slice(0, 500))).toMatch(/cut off/);
    expect(await refused("assess", { ...file, version: 9 })).toMatch(/Update the app/);
  });
});

describe("simulate", () => {
  const tank = {
    ambient: pressure(101.325, "kPa"),
    temperature: celsius(20),
    isothermal: true,
    zones: [{ id: "tank", volume: { value: 30, unit: "L" }, pressure: pressure(10, "inH2O", "gauge") }],
    joints: [{ id: "leak", from: "tank", to: "outside", type: "orifice", area: (Math.PI * 0.508 ** 2) / 4 }],
    until: 120,
    every: 30,
  };
  it("prints its channels as CSV, from a file or from stdin alike", async () => {
    const text: string = await run("simulate", tank);
    const [head, ...rows] = text.trim().split("\n");
    expect(head).toBe("t,p:tank,T:tank,m:leak");
    // Published figures: 10 inH2O falls to 7.03, 4.58 and 1.25 after 30, 60 and 120 s.
    const inches = rows.map((row) => (Number(row.split(",")[1]) - 101_325) / 249.0889);
    expect([0, 1, 2, 4].map((k) => inches[k]?.toFixed(2))).toEqual(["10.00", "7.03", "4.58", "1.25"]);
    expect(await run("simulate", "", [fileOf("case.json", JSON.stringify(tank))])).toBe(text);
  });
  it("refuses what is no case, and where", async () => {
    expect(await refused("simulate", "{")).toMatch(/not JSON/);
    expect(await refused("simulate", "", [join(folder, "none.json")])).toMatch(/no file/);
    expect(await refused("simulate", { ...tank, zones: [{ ...tank.zones[0], volume: { value: 0, unit: "L" } }] })).toMatch(
      /^zones\[0\]\.volume/,
    );
  });
});

describe("practice", () => {
  it("prints what is true of a case's car, the same for the same code", async () => {
    const code = caseCode({ family: "evap", level: 3, seed: 4711 });
    const truth = await run("practice", "", [code]);
    expect(truth).toMatchObject({ code, family: "evap", vehicle: { fuel: "petrol" } });
    expect(truth.faults).toHaveLength(2);
    expect(truth.misleading).toHaveLength(1);
    expect(await run("practice", code.toLowerCase().replace("-", ""))).toEqual(truth);
  });
  it("refuses a code that was mistyped", async () => {
    expect(await refused("practice", "", ["3000-1234"])).toMatch(/^code: This is no case code/);
    expect(await refused("practice", "", [""])).toMatch(/Say which case/);
  });
});

describe("exhaust-gas", () => {
  const gas = { fuel: "petrol", co: 0.1, co2: 14.2, o2: 1.4, hc: 40 };
  it.each([
    [{ co2: 18, o2: 12 }, /cannot be of one gas/],
    [{ co: 18 }, /CO/],
    [{ co2: 0 }, /CO₂/],
    [{ hc: 45_000 }, /no analyser shows so much/],
    [{ ecuLambda: 9 }, /No sensor shows such a λ/],
    [{ o2: undefined }, /O₂/],
    [{ fuel: "coal" }, /fuel is one of/],
    [{ soot: 1 }, /soot/],
  ])("refuses %j as the check does", async (change, words) => {
    await expect(run("exhaust-gas", { ...gas, ...change })).rejects.toThrow(words);
    await expect(run("exhaust-gas", gas)).resolves.toHaveProperty("lambda");
  });
});

describe("reckon", () => {
  const air = { ambient: { value: 1013.25, unit: "hPa", kind: "absolute" }, temperature: { value: 20, unit: "°C" } };
  const rows = async (tool: string, body: object) =>
    ((await run("reckon", body, [tool])) as unknown as { rows: { value: { value: number } }[] }).rows.map((r) => r.value.value);

  it("says what the commands of the same name say", async () => {
    const leak = { flow: { value: 0.543, unit: "L/min" }, pressure: { value: 13, unit: "inH2O" }, ...air };
    const { diameter } = (await run("leak-size", leak)) as { diameter: { value: number } };
    expect((await rows("hole", leak))[0]).toBeCloseTo(diameter.value, 12);
    const gas = { fuel: "petrol", co: 0.1, co2: 14.2, o2: 1.4, hc: 40 };
    const { lambda } = (await run("exhaust-gas", gas)) as { lambda: number };
    expect((await rows("lambda", gas))[0]).toBeCloseTo(lambda, 12);
    const { needed } = (await run("comeback", { kind: "random", recorded: [14, 22, 17], clean: 30 })) as { needed: number };
    expect((await rows("drive", { kind: "random", recorded: [14, 22, 17], clean: [30] }))[0]).toBeCloseTo(needed, 12);
    const samples = [0, 30, 60, 90, 120].map((t) => [t, 10 * Math.exp(-t / 200)]);
    const fall = { samples, unit: "inH2O", volume: { value: 30, unit: "L" }, held: 120, ...air };
    const decayed = (await run("decay", fall)) as { diameter: { value: number } };
    expect((await rows("decay", fall))[0]).toBeCloseTo(decayed.diameter.value, 12);
  });

  it("names what there is, and refuses what its form refuses", async () => {
    await expect(run("reckon", {}, ["odds"])).rejects.toThrow(/one of hole, flow, fill/);
    await expect(run("reckon", { flow: { value: 1, unit: "furlong" } }, ["hole"])).rejects.toThrow(/flow/);
  });
});

describe("the process", () => {
  const pelota = (args: string[], input = "") => spawnSync("node", ["scripts/pelota.mjs", ...args], { input, encoding: "utf8" });

  it("answers JSON on stdout and ends with 0", () => {
    const done = pelota(
      ["leak-size"],
      JSON.stringify({
        flow: { value: 0.543, unit: "L/min" },
        pressure: pressure(13, "inH2O"),
        ambient: pressure(1013.25, "hPa"),
        temperature: celsius(20),
      }),
    );
    expect(done.status).toBe(0);
    expect(JSON.parse(done.stdout).diameter.value).toBeCloseTo(0.508, 2);
  });

  it("prints a table as it stands", () => {
    const done = pelota(
      ["simulate"],
      JSON.stringify({
        ambient: pressure(101.325, "kPa"),
        temperature: celsius(20),
        zones: [{ id: "a", volume: { value: 1, unit: "L" } }],
        joints: [],
        until: 1,
        every: 1,
      }),
    );
    expect([done.status, done.stdout]).toEqual([0, "t,p:a,T:a\n0,101325,293.15\n1,101325,293.15\n"]);
  });

  it("ends with 2 and one line of JSON on stderr for bad input", () => {
    const done = pelota(["orifice"], "{}");
    expect(done.status).toBe(2);
    expect(done.stdout).toBe("");
    const lines = done.stderr
      .trim()
      .split("\n")
      .filter((l) => l.startsWith("{"));
    expect(lines).toHaveLength(1);
    expect(JSON.parse(lines[0] as string).error).toMatchObject({
      path: expect.stringMatching(/upstream/),
      message: expect.any(String),
    });
  });

  it("answers a batch line by line, errors in their line, in their order", () => {
    const lines = [
      { command: "orifice", input: {} },
      { command: "judge", args: ["guess"], input: {} },
      { command: "obd", input: "0.20 7E8 41 01 81 07 65 04\n" },
      { command: "divine" },
    ];
    const done = pelota(["batch"], `${lines.map((l) => JSON.stringify(l)).join("\n")}\n\nnot JSON\n[null]\n`);
    expect(done.status).toBe(0);
    expect(done.stderr).toBe("");
    const answers = done.stdout
      .trim()
      .split("\n")
      .map((l) => JSON.parse(l));
    expect(answers).toMatchObject([
      { error: { path: "upstream" } },
      { error: { message: expect.stringMatching(/no check "guess"/) } },
      { lightOn: true },
      { error: { path: "command" } },
      { error: { message: expect.stringMatching(/not JSON/) } },
      { error: { message: expect.stringMatching(/must be an object, not \[null\]/) } },
    ]);
  });

  it("is bundled anew after a change, by however many at once, and nobody meets half of it", async () => {
    const now = new Date();
    utimesSync("src/cli/main.ts", now, now);
    const runs = Array.from({ length: 4 }, async () => {
      const child = spawn("node", ["scripts/pelota.mjs", "orifice"], { stdio: ["pipe", "ignore", "pipe"] });
      child.stdin.end("{}");
      let told = "";
      for await (const chunk of child.stderr) told += chunk;
      return told;
    });
    for (const told of await Promise.all(runs)) expect(told).toMatch(/"path":"upstream"/);
  });

  it("knows its commands", () => {
    const done = pelota(["divine"]);
    expect(done.status).toBe(2);
    expect(done.stderr).toMatch(/no command \\"divine\\". Known: orifice, leak-size, decay, trims, read-log, assess/);
  });
});

describe("probe", () => {
  const folder = mkdtempSync(join(tmpdir(), "pelota-probe-"));
  afterAll(() => rmSync(folder, { recursive: true, force: true }));
  const file = (name: string, text: string) => {
    const path = join(folder, name);
    writeFileSync(path, text);
    return path;
  };
  // An idle of 60 s; the second tap takes 9 % of trim away two seconds later.
  const rows = Array.from({ length: 240 }, (_, i) => {
    const t = i / 4;
    const drunk = t > 32 && t < 37 ? -9 : 0;
    return [t, 740 + (drunk ? 50 : 0) + (i % 3) * 4, 3 + drunk + (i % 2 ? 0.8 : -0.8), 12, "CL"].join(",");
  });
  const log = file("probe.csv", ["Time (s),RPM,STFT (%),LTFT (%),Fuel system status", ...rows].join("\n"));
  const taps = {
    agent: "gas",
    vehicle: NATURAL,
    taps: [
      { joint: "manifold-gasket", at: 14 },
      { joint: "vacuum-branch", at: 30 },
    ],
  };
  const probe = (given: unknown, path = log) => COMMANDS.probe?.run("", [path, file("taps.json", JSON.stringify(given))]);

  it("reads a log against its taps", async () => {
    expect(await probe(taps)).toMatchObject({
      outcome: "fail",
      headline: expect.stringMatching(/^Reacts at Small vacuum branch/),
      taps: [
        { joint: "manifold-gasket", outcome: "quiet" },
        { joint: "vacuum-branch", outcome: "reacts", trim: { change: expect.any(Number), delay: expect.any(Number) } },
      ],
    });
  });

  it.each<[string, unknown, RegExp]>([
    ["no agent", { ...taps, agent: undefined }, /agent is missing/],
    ["no taps", { ...taps, taps: [] }, /mark at least one/],
    ["no vehicle", { ...taps, vehicle: undefined }, /vehicle is missing/],
  ])("refuses %s", async (_name, given, message) => {
    await expect(probe(given)).rejects.toThrow(message);
  });

  it("refuses a log that is not there", async () => {
    await expect(probe(taps, join(folder, "none.csv"))).rejects.toThrow(/There is no file/);
  });
});

describe("judge", () => {
  const judge = (check: string, given: unknown) => COMMANDS.judge?.run(JSON.stringify(given), [check]);

  it("judges by the shop's own limits and house methods where they are given", async () => {
    const still = [
      [0, 20],
      [60, 18.4],
    ];
    const given = (shop?: object) => ({
      record: { ...hold, still, wiggled: still },
      context: { vehicle: NATURAL, ...(shop ? { shop } : {}) },
    });
    expect(await judge("hold", given())).toMatchObject({ outcome: "fail", word: "Faulty" });
    const lenient = { limits: { holdLoss: { value: 0.15, source: "set by this shop" } } };
    expect(await judge("hold", given(lenient))).toMatchObject({ outcome: "pass" });
  });

  it.each<[string, unknown, RegExp]>([
    ["guess", {}, /There is no check "guess"/],
    ["hold", { record: hold }, /context is missing/],
    ["hold", { context: { vehicle: NATURAL } }, /record is missing/],
    ["hold", { record: { ...hold, unit: "mm" }, context: { vehicle: NATURAL } }, /unit is one of Pa/],
  ])("%s: refuses what it cannot take", async (check, given, message) => {
    await expect(judge(check, given)).rejects.toThrow(message);
  });
});

describe("suspects", () => {
  it("shows each with its contributions, and what is worth nothing", async () => {
    const { job } = found();
    job.smoke({ heaterOnAt: -290 });
    const state = (await COMMANDS.suspects?.run(
      JSON.stringify(toJobFile(JOB, SHOP, job.entries, new Date(NOW).toISOString())),
      [],
    )) as {
      suspects: { id: string; odds: number; because: { weight: string; reason: string }[] }[];
      worthNothing: { check: string }[];
      next: { beats?: string }[];
    };
    expect(state.suspects[0]).toMatchObject({ id: "pcv-hose" });
    expect(state.suspects[0]?.because[0]?.weight).toMatch(/×/);
    expect(state.worthNothing).toMatchObject([{ check: "smoke" }]);
    expect(state.next[0]?.beats).toBeTruthy();
  });
});

describe("obd", () => {
  it("decodes a hex log named as an argument, or from the standard input", async () => {
    const text = "0.20 7E8 41 01 81 07 65 04\n0.30 7E8 41 32 FF 38\n0.40 7E8 43 01 04 42\n";
    const path = join(folder, "obd.log");
    writeFileSync(path, text);
    const log = await run("obd", "", [path]);
    expect(log).toMatchObject({ lightOn: true, codes: [{ code: "P0442", status: "stored" }] });
    expect(log.messages[1].values).toEqual([
      { name: "EVAP system vapour pressure", value: -50, unit: "Pa", kind: "gauge", pid: "32" },
    ]);
    expect(await run("obd", text)).toEqual(log);
  });
  it("refuses what is no log, naming the line, and a file that is not there", async () => {
    expect(await refused("obd", "41 0C 1A F8\nbattery 12.4 V\n")).toMatch(/^line 2: Line 2 is no OBD message/);
    expect(await refused("obd", "")).toMatch(/holds no OBD message/);
    expect(await refused("obd", "", [join(folder, "missing.log")])).not.toBe("taken");
  });
});
