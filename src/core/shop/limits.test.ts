import { describe, expect, it } from "vitest";
import { LIMIT_FIELDS, LIMIT_GROUPS, limitFromShown, shownLimit } from "./limits";
import { DEFAULT_LIMITS, LIMIT_IDS } from "./settings";

describe("limits as they are typed", () => {
  it("stand in one group each, with a unit", () => {
    const grouped = LIMIT_GROUPS.flatMap(([, fields]) => Object.keys(fields));
    expect(grouped.toSorted()).toEqual([...LIMIT_IDS].toSorted());
    for (const id of LIMIT_IDS) expect(LIMIT_FIELDS[id].unit, id).toBeTruthy();
  });

  it.each(LIMIT_IDS)("%s comes back as it was shown", (id) => {
    const shown = shownLimit(id, DEFAULT_LIMITS[id].value);
    expect(shownLimit(id, limitFromShown(id, Number(shown)))).toBe(shown);
  });

  it.each([
    ["trimGood", "5"],
    ["warmCoolant", "75"],
    ["vacuumLow", "17"],
    ["actuatorSupply", "15"],
    ["idleAir", "1.1"],
    ["breathingRestricted", "70"],
    ["outputTime", "30"],
  ] as const)("%s is shown as the trade says it: %s", (id, shown) => {
    expect(shownLimit(id, DEFAULT_LIMITS[id].value)).toBe(shown);
  });
});
