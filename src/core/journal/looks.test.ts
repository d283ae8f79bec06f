import { describe, expect, it } from "vitest";
import { contextOf, NATURAL, TURBO, VAPOUR } from "../core.fixture";
import type { CodeRead } from "./entries";
import { looksOf } from "./looks";

const of = (vehicle: typeof NATURAL, codes: readonly string[], symptoms: readonly string[] = []) => {
  const read: CodeRead[] = codes.map((code) => ({ code, status: "stored" }));
  const story = { complaint: "x", symptoms: symptoms as never, verified: "seen" as const };
  return looksOf(contextOf(vehicle), { codes: read, ownCodes: [], story } as never);
};
const ids = (looks: ReturnType<typeof of>) => looks.asked.map(({ id }) => id);

describe("what a look asks for", () => {
  it.each([
    ["lean", NATURAL, ["P0171"]],
    ["short of boost", TURBO, ["P0299"]],
    ["vapour leak", VAPOUR, ["P0455"]],
    ["nothing told", NATURAL, []],
  ] as const)("is six to eight places where the car is %s, each once, and nothing of the list is lost", (_, vehicle, codes) => {
    const looks = of(vehicle, codes);
    expect(looks.asked.length).toBeGreaterThanOrEqual(6);
    expect(looks.asked.length).toBeLessThanOrEqual(8);
    const all = [...looks.asked, ...looks.others].map(({ id }) => id);
    expect(new Set(all).size).toBe(all.length);
    expect(ids(looks)).toContain("earlier-work");
  });

  it("goes where complaint and codes point", () => {
    expect(ids(of(VAPOUR, ["P0455"]))).toContain("filler-cap");
    expect(ids(of(NATURAL, ["P0171"]))).toContain("pcv-hose");
    expect(ids(of(NATURAL, ["P0171"]))).not.toContain("filler-cap");
    const boost = ids(of(TURBO, ["P0299"]));
    expect(boost.some((id) => id.startsWith("cold-pipe") || id.startsWith("hot-pipe") || id.startsWith("cooler"))).toBe(true);
  });

  it("walks once round the car", () => {
    const stands = of(TURBO, ["P0299"]).asked.map(({ stand }) => stand);
    expect(stands.filter((s, i) => i === 0 || s !== stands[i - 1]).length).toBe(new Set(stands).size);
  });
});
