import { describe, expect, it } from "vitest";
import { NATURAL } from "../core.fixture";
import { layoutOf } from "./layout";
import { placeGroups } from "./place-groups";

describe("places to choose from", () => {
  it("has the likeliest first, in their order, and every other once in its circuit", () => {
    const { joints } = layoutOf(NATURAL);
    const [likely, ...circuits] = placeGroups(joints);
    expect(likely).toEqual(["Likely now", joints.slice(0, 4).map((j) => [j.id, j.name])]);
    const ids = [likely, ...circuits].flatMap((g) => g?.[1].map(([id]) => id) ?? []);
    expect(ids.toSorted()).toEqual(joints.map((j) => j.id).toSorted());
    for (const [name, own] of circuits) expect(own.length, name).toBeGreaterThan(0);
  });
});
