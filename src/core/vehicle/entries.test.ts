import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { judgeCheck } from "../checks";
import { evapSmokeRun } from "../checks/evap.fixture";
import { contextOf, NATURAL, SEALED_NECK, smokeRun, TURBO, TWO_BANKS, VAPOUR } from "../core.fixture";
import { FITTED_SYSTEMS, TAPPABLE, type VehicleFacts } from "./facts";
import { layoutOf, type ZONE_IDS, type ZoneId } from "./layout";
import { entriesOf, hiddenAt, hoseEnds, markable, noWayIn, reachOf, sidesOf, usualSetup } from "./reach";

const EVERYTHING: VehicleFacts = { ...SEALED_NECK, induction: "turbo", fitted: FITTED_SYSTEMS, tapped: TAPPABLE };
const CARS = [NATURAL, TURBO, TWO_BANKS, VAPOUR, SEALED_NECK, EVERYTHING].map(layoutOf);
const layout = layoutOf(EVERYTHING);
const joint = (id: string) => layout.joints.find((j) => j.id === id) as (typeof layout.joints)[number];

/** Any hose's end of any of the cars, with a side of it and joints shut and held at random. */
const setups = fc.constantFrom(...CARS).chain((car) => {
  const ids = fc.subarray(car.joints.map((j) => j.id));
  return fc.constantFrom(...[...hoseEnds(car), ...hoseEnds(car, "evap")]).chain((entry) =>
    fc.record({
      car: fc.constant(car),
      entry: fc.constant(entry),
      into: fc.constantFrom(undefined, ...sidesOf(car, entry)),
      blocked: ids,
      heldOpen: ids,
    }),
  );
});

describe("any hose's end is a way in", () => {
  it("hides itself and what falls apart with it, whatever the setup (property)", () => {
    fc.assert(
      fc.property(setups, ({ car, entry, ...rest }) => {
        const setup = { ...rest, entry: entry.id };
        const reach = reachOf(car, setup);
        const tested = reach.tested.map((j) => j.id);
        for (const id of [...hiddenAt(car, entry), ...setup.blocked]) expect(tested).not.toContain(id);
        // What is shut off right there fills nothing, and says why.
        expect(reach.zones.length === 0).toBe(noWayIn(car, setup) !== undefined);
        if (reach.zones.length === 0) {
          expect(reach).toMatchObject({ tested: [], openEnds: [], volume: 0 });
          expect(reach.stopped.map((s) => s.zone)).toEqual(car.zones.map((z) => z.id));
        }
      }),
    );
  });

  it("lets smoke be marked wherever it gets to, plugs and what weeps included, once and never where the hose is (property)", () => {
    fc.assert(
      fc.property(setups, fc.constantFrom("intake" as const, "evap" as const), ({ car, entry, ...rest }, circuit) => {
        const setup = { ...rest, entry: entry.id };
        const reach = reachOf(car, setup);
        const { tested, rest: others } = markable(car, setup, circuit);
        const all = [...tested, ...others];
        expect(new Set(all).size).toBe(all.length);
        for (const id of hiddenAt(car, entry)) expect(all.map((j) => j.id)).not.toContain(id);
        for (const j of all) expect([j.from, j.to].some((z) => reach.zones.includes(z as ZoneId))).toBe(true);
        const seeable = (zone: string) => reach.zones.includes(zone as ZoneId) && !reach.behindEngine.includes(zone as ZoneId);
        const hidden = hiddenAt(car, entry);
        const weeping = car.joints.filter((j) => j.weeps && seeable(j.from) && seeable(j.to) && !hidden.includes(j.id));
        if (circuit === "intake") for (const j of weeping) expect(all).toContain(j);
      }),
    );
    expect(() => markable(layout, { entry: "nowhere", blocked: [], heldOpen: [] }, "intake")).toThrow(RangeError);
  });

  it.each([
    ["air-meter", "air-meter"],
    ["hot-pipe-clamp", "compressor"],
    ["duct-clamp", "compressor"],
    ["cold-pipe-split", "throttle"],
    ["booster-hose", "booster-check-valve"],
    ["pcv-hose", "pcv-valve"],
    ["purge-hose", "purge-valve"],
    ["purge-line-joint", "purge-valve"],
    ["flap-line", "flap-check-valve"],
    ["tank-line", "fill-limit-valve"],
    ["filler-cap", "cap-seat"],
  ])("%s takes the %s out of the test", (entry, hidden) => {
    expect(hiddenAt(layout, joint(entry))).toContain(hidden);
    const { zones } = reachOf(layout, { entry, blocked: [], heldOpen: ["throttle"] });
    expect(zones.length).toBeGreaterThan(0);
  });

  it("tells the pipe from what it came off: each side fills what hangs on it, and nothing of the other", () => {
    const into = (zone: (typeof ZONE_IDS)[number]) =>
      reachOf(layout, { entry: "cooler-outlet", into: zone, blocked: ["snorkel", "pcv-valve"], heldOpen: [] }).zones;
    expect(into("cold-pipe")).toEqual(["cold-pipe"]);
    expect(into("cooler")).toEqual(expect.arrayContaining(["cooler", "hot-pipe", "metered-duct"]));
    expect(into("cooler")).not.toContain("cold-pipe");
  });

  it("leaves a rigid pipe to be tested that is fed at one of its ends: the clamp that is off is another place", () => {
    const tested = (entry: string) =>
      reachOf(layout, { entry, blocked: ["snorkel", "pcv-valve"], heldOpen: ["throttle"] }).tested.map((j) => j.id);
    for (const entry of ["hot-pipe-clamp", "cooler-inlet"]) expect(tested(entry), entry).toContain("hot-pipe-split");
    for (const entry of ["cold-pipe-clamp", "cooler-outlet"]) expect(tested(entry), entry).toContain("cold-pipe-split");
    expect(tested("cold-pipe-clamp")).not.toContain("cold-pipe-clamp");
    expect(tested("cooler-outlet")).toContain("cold-pipe-clamp");
    // A record of an earlier build went in at the pipe as a whole: it tested neither, and that way is offered no more.
    expect(tested("cold-pipe-split")).not.toContain("cold-pipe-split");
    expect(tested("cold-pipe-split")).not.toContain("cold-pipe-clamp");
    expect(hoseEnds(layout).map((j) => j.id)).toContain("cold-pipe-clamp");
    expect(hoseEnds(layout).map((j) => j.id)).not.toContain("cold-pipe-split");
  });

  it("does not take a hose for filled behind a valve that holds against it", () => {
    const purge = { entry: "purge-hose", into: "purge-line", blocked: [], heldOpen: [] } as const;
    expect(noWayIn(layout, purge)).toMatch(/purge valve shuts it off right there/i);
    expect(reachOf(layout, { ...purge, heldOpen: ["purge-valve"] }).zones).toContain("canister");
    const booster = { entry: "booster-hose", into: "booster-branch", blocked: [], heldOpen: [] } as const;
    expect(reachOf(layout, booster).zones).toEqual([]);
    expect(noWayIn(layout, { ...booster, into: undefined })).toBeUndefined();
  });

  it("lets nothing in where nothing comes off, and at no side that is not there", () => {
    expect(noWayIn(layout, { entry: "plenum-crack", blocked: [], heldOpen: [] })).toMatch(/no hose, pipe or cap ends/);
    expect(noWayIn(layout, { entry: "moon", blocked: [], heldOpen: [] })).toMatch(/no such entry point/);
    expect(() => reachOf(layout, { entry: "gauge-port", into: "tank", blocked: [], heldOpen: [] })).toThrow(RangeError);
  });

  it("proposes the usual ways in first, and offers the rest", () => {
    for (const car of CARS) {
      const ends = hoseEnds(car);
      expect(ends.slice(0, entriesOf(car).length).every((j) => j.end?.usual)).toBe(true);
      expect(ends.length).toBeGreaterThan(entriesOf(car).length);
      for (const entry of ends) expect(usualSetup(car, entry.id).blocked).not.toContain(entry.id);
    }
  });
});

describe("the usual setup from any hose's end of the vapour system", () => {
  it("fills more than the stretch it is on: nothing that it shuts itself stands right before it", () => {
    const car = layoutOf(VAPOUR);
    for (const entry of hoseEnds(car, "evap")) {
      const { zones, tested } = reachOf(car, usualSetup(car, entry.id));
      expect(zones.length, entry.id).toBeGreaterThan(1);
      expect(tested.length, entry.id).toBeGreaterThan(1);
    }
  });
});

describe("a run from a way in that is none", () => {
  const context = contextOf(NATURAL);
  it.each([
    [{ entry: "plenum-crack" }, /no hose, pipe or cap ends/],
    [{ entry: "booster-hose", into: "booster-branch" as const }, /shuts it off right there/],
  ])("%j proves nothing, and what was seen stays seen", (change, why) => {
    const verdict = judgeCheck("smoke", smokeRun(0, change), context);
    expect(verdict.outcome).toBe("void");
    expect(verdict.reasons[0]).toMatch(why);
    const seen = smokeRun(4.5, { ...change, seen: [{ joint: "pcv-hose", at: 60 }], noSmokeOutside: false });
    expect(judgeCheck("smoke", seen, context)).toMatchObject({ outcome: "fail", observation: "smoke-at:pcv-hose" });
  });
});

describe("smoke marked where the fill does not go", () => {
  it.each([
    ["smoke", NATURAL, smokeRun()],
    ["evap-smoke", SEALED_NECK, evapSmokeRun()],
  ] as const)("takes a pass away from a %s run, and names the place", (check, car, run) => {
    const context = contextOf(car);
    const reached = reachOf(context.layout, run).zones;
    const judged = (zones: readonly ZoneId[]) =>
      judgeCheck(check, { ...run, arrivals: zones.map((zone) => ({ zone, at: 60 })) }, context);
    expect(judged(reached).outcome).toBe("pass");
    const beyond = context.layout.zones.filter((z) => !reached.includes(z.id));
    expect(beyond.length).toBeGreaterThan(0);
    for (const { id, name } of beyond) {
      const verdict = judged([...reached, id]);
      expect(verdict.outcome, id).toBe("unsure");
      expect(verdict.reasons.join().toLowerCase(), id).toContain(`smoke was marked in ${name.toLowerCase()}`);
      expect(verdict.zones.map((z) => z.state)).not.toContain("tight");
    }
  });
});

describe("a run into one side of a hose's end", () => {
  const context = contextOf(TURBO);
  const into = (side: "cold-pipe" | "cooler") => {
    const setup = { ...usualSetup(context.layout, "cooler-outlet", side) };
    const { zones } = reachOf(context.layout, setup);
    // It is said of every zone there is that smoke arrived in it.
    const arrivals = context.layout.zones.map((z) => ({ zone: z.id, at: 60 }));
    return { zones, verdict: judgeCheck("smoke", smokeRun(0, { ...setup, arrivals }), context) };
  };
  it.each(["cold-pipe", "cooler"] as const)("%s: says nothing of what lies on the other, whatever was ticked", (side) => {
    const { zones, verdict } = into(side);
    expect(zones).toContain(side);
    for (const z of verdict.zones.filter((k) => k.state === "tight")) expect(zones, z.zone).toContain(z.zone);
    const other = side === "cooler" ? "cold-pipe-split" : "cooler-tank";
    expect(verdict.tested).not.toContain(other);
    expect(verdict.tested).not.toContain("cooler-outlet");
  });
});

describe("a tapped port", () => {
  const tapped = layoutOf({ ...NATURAL, tapped: ["manifold"] });
  it("is a place of its own: it can leak, smoke goes in there, and nothing else is hidden by that", () => {
    const port = tapped.joints.find((j) => j.id === "tapped-manifold");
    expect(port).toMatchObject({ name: "Tapped port, manifold", kind: "seal", from: "manifold" });
    const from = (entry: string) => reachOf(tapped, usualSetup(tapped, entry)).tested.map((j) => j.id);
    expect(from("tapped-manifold")).not.toContain("tapped-manifold");
    expect(from("gauge-port")).toContain("tapped-manifold");
    expect(from("tapped-manifold")).toEqual(expect.arrayContaining(["gauge-port", "plenum-crack", "manifold-gasket"]));
  });
  it("is there only where the vehicle has the pipe", () => {
    const ids = layoutOf({ ...NATURAL, tapped: ["cold-pipe", "manifold"] }).joints.map((j) => j.id);
    expect(ids.filter((id) => id.startsWith("tapped-"))).toEqual(["tapped-manifold"]);
  });
});
