import { describe, expect, it } from "vitest";
import { BadInput } from "../../input";
import { readCase } from "./case";
import { simulate } from "./simulate";

const kPa = (value: number) => ({ value, unit: "kPa", kind: "absolute" });
const CASE = {
  ambient: kPa(101.325),
  temperature: { value: 20, unit: "°C" },
  isothermal: true,
  zones: [
    { id: "hose", volume: { value: 0.2, unit: "L" } },
    { id: "tank", volume: { value: 30, unit: "L" }, pressure: kPa(103) },
  ],
  joints: [
    {
      id: "machine",
      from: "outside",
      to: "hose",
      type: "regulator",
      setPressure: { value: 13, unit: "inH2O" },
      maxFlow: { value: 12, unit: "L/min" },
    },
    { id: "port", from: "hose", to: "tank", type: "orifice", area: 20 },
    { id: "leak", from: "tank", to: "outside", type: "orifice", area: 0.2 },
  ],
  events: [{ at: 4, joint: "leak", set: { area: 0 } }],
  until: 10,
  every: 1,
};
const refused = (change: object): string => {
  try {
    readCase({ ...CASE, ...change });
    return "taken";
  } catch (error) {
    if (!(error instanceof BadInput)) throw error;
    return `${error.path}: ${error.message}`;
  }
};
const joints = (change: object) => ({ joints: CASE.joints.map((j, i) => (i === 2 ? { ...j, ...change } : j)) });
const zones = (change: object) => ({ zones: CASE.zones.map((z, i) => (i === 1 ? { ...z, ...change } : z)) });
const events = (...list: object[]) => ({ events: list });
const run = (change: object) => {
  const { names, rows } = simulate(readCase({ ...CASE, ...change }));
  const all = [...rows()];
  return (channel: string) => all.map((row) => row[names.indexOf(channel)] as number);
};

describe("a case of the network", () => {
  it.each<[string, object, RegExp]>([
    ["no zones", { zones: [] }, /^zones: Give at least one/],
    ["a zone without volume", zones({ volume: { value: 0, unit: "L" } }), /^zones\[1\]\.volume/],
    ["a negative volume", zones({ volume: { value: -3, unit: "L" } }), /^zones\[1\]\.volume/],
    ["a zone called outside", zones({ id: "outside" }), /^zones\[1\]\.id: .*always there/],
    ["two zones of one name", zones({ id: "hose" }), /^zones\[1\]\.id: "hose" is there twice/],
    ["a zone below a vacuum", zones({ pressure: { value: 2000, unit: "kPa", kind: "vacuum" } }), /^zones\[1\]\.pressure/],
    ["a wall without time", zones({ wall: { timeConstant: 0 } }), /^zones\[1\]\.wall\.timeConstant/],
    ["an unknown zone", joints({ to: "cellar" }), /^joints\[2\]\.to: There is no zone "cellar"/],
    ["a joint into its own zone", joints({ to: "tank" }), /^joints\[2\]\.to: .*leads back/],
    ["an unknown type", joints({ type: "valve" }), /^joints\[2\]\.type: type is one of orifice/],
    ["a hole without area", joints({ area: undefined }), /^joints\[2\]\.area: .*needs area/],
    ["a negative area", joints({ area: -1 }), /^joints\[2\]\.area/],
    ["an area of the wrong unit", joints({ area: { value: 2, unit: "mm" } }), /^joints\[2\]\.area: .*number/],
    ["a hole with a flow", joints({ maxFlow: { value: 1, unit: "L/min" } }), /^joints\[2\]\.maxFlow: .*has no maxFlow/],
    ["a coefficient above one", joints({ dischargeCoefficient: 1.2 }), /^joints\[2\]\.dischargeCoefficient/],
    ["a pipe of nothing", joints({ type: "pipe", area: undefined }), /^joints\[2\]\.resistance: .*one of them/],
    ["a pipe of both", joints({ type: "pipe", resistance: 1e6 }), /^joints\[2\]\.resistance: .*one of them/],
    ["a regulator without pressure", joints({ type: "regulator", area: undefined }), /^joints\[2\]\.setPressure/],
    ["an event in the past", events({ at: -1, joint: "leak", set: { area: 1 } }), /^events\[0\]\.at: .*past/],
    ["an event at no joint", events({ at: 1, joint: "lid", set: { area: 1 } }), /^events\[0\]\.joint: There is no joint "lid"/],
    [
      "an event that sets what is not there",
      events({ at: 1, joint: "leak", set: { resistance: 1 } }),
      /^events\[0\]\.set\.resistance/,
    ],
    ["an event that sets a type", events({ at: 1, joint: "leak", set: { type: "pump" } }), /^events\[0\]\.set: .*unknown key/],
    ["a million events", { events: new Array(1_000_000).fill({}) }, /^events: At most 10000 events, not 1000000/],
    ["an unknown tracer", { tracer: { source: "fog" } }, /^tracer\.source: There is no zone and no joint/],
    ["no end", { until: 0 }, /^until/],
    ["an end without bounds", { until: 1e9 }, /^until: .*within a day/],
    ["too many rows", { every: 1e-9 }, /^every: Read it less often/],
    ["no rows", { every: 0 }, /^every/],
    ["an unknown key", { zone: [] }, /unknown key: zone/],
    ["a pressure in gauge where the air outside is asked", { ambient: { value: 1, unit: "bar", kind: "gauge" } }, /^ambient/],
  ])("is refused with %s, and where", (_, change, complaint) => {
    expect(refused(change)).toMatch(complaint);
  });

  it("is taken as it stands, with any number of zones and without events, tracer or joints", () => {
    expect(refused({})).toBe("taken");
    expect(refused({ events: undefined, joints: [], isothermal: undefined })).toBe("taken");
    expect(refused({ tracer: { source: "machine" } })).toBe("taken");
    expect(refused({ tracer: { source: "outside" } })).toBe("taken");
    // It is looked at up to an earlier end: what comes later does not come.
    const leak = (change: object) => run({ until: 3, ...change })("m:leak");
    expect(leak({})).toEqual(leak({ events: [] }));
  });

  it("reads a pressure by its kind: absolute where a zone says none, gauge where a regulator does", () => {
    const at = (pressure: object) => run(zones({ pressure }))("p:tank")[0];
    expect(at({ value: 103, unit: "kPa" })).toBeCloseTo(103e3, 3);
    expect(at({ value: 2, unit: "kPa", kind: "gauge" })).toBeCloseTo(103.325e3, 3);
    expect(at({ value: 20, unit: "kPa", kind: "vacuum" })).toBeCloseTo(81.325e3, 3);
    const set = (setPressure: object) =>
      run({ joints: CASE.joints.map((j, i) => (i === 0 ? { ...j, setPressure } : j)), until: 60 })("p:tank").at(-1);
    expect(set({ value: 3, unit: "kPa" })).toBeCloseTo(set({ value: 104.325, unit: "kPa", kind: "absolute" }) as number, 6);
  });

  it("puts what falls on one time in the order it was written, and shows it in the row of that time", () => {
    const both = (first: number, second: number) =>
      run(
        events(
          { at: 4, joint: "leak", set: { area: first } },
          { at: 4, joint: "leak", set: { area: second } },
          { at: 2, joint: "leak", set: { area: 0.3 } },
        ),
      )("m:leak")[4] as number;
    expect(both(5, 0)).toBe(0);
    expect(both(0, 5)).toBeGreaterThan(1e-4);
    // One that sets a part leaves the others as the one before it left them.
    const kept = run(
      events({ at: 2, joint: "leak", set: { dischargeCoefficient: 1 } }, { at: 4, joint: "leak", set: { area: 0.4 } }),
    )("m:leak");
    const plain = run(events({ at: 2, joint: "leak", set: {} }, { at: 4, joint: "leak", set: { area: 0.4 } }))("m:leak");
    expect((kept[4] as number) / (plain[4] as number)).toBeGreaterThan(1.5);
  });

  it("gives a channel for every zone and joint, of a tracer too where one is followed, at every time asked for", () => {
    expect(simulate(readCase(CASE)).names).toEqual([
      "t",
      "p:hose",
      "p:tank",
      "T:hose",
      "T:tank",
      "m:machine",
      "m:port",
      "m:leak",
    ]);
    expect(run({})("t")).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10]);
    const traced = simulate(readCase({ ...CASE, tracer: { source: "machine" }, until: 0.3, every: 0.1 }));
    expect(traced.names.slice(-2)).toEqual(["c:hose", "c:tank"]);
    expect([...traced.rows()]).toHaveLength(4);
  });
});
