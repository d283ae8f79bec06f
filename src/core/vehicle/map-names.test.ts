import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import fc from "fast-check";
import { openSync } from "fontkit";
import { describe, expect, it } from "vitest";
import { NATURAL, TURBO, TWO_BANKS } from "../core.fixture";
import {
  type AirMap,
  airMapOf,
  type Box,
  FITTED_SYSTEMS,
  type FittedSystem,
  layoutOf,
  type VehicleFacts,
  WORKED_BY,
  type WorkedBy,
} from ".";
import { anyCar } from "./cars.fixture";
import { arrowBox, burstBox, jointName, type PlacedName, placeNames, symbolBox, textWidth, usualNames } from "./map-names";

const overlap = (a: Box, b: Box) =>
  a.x < b.x + b.w - 0.01 && b.x < a.x + a.w - 0.01 && a.y < b.y + b.h - 0.01 && b.y < a.y + a.h - 0.01;

/** Where names lie on each other, on a shape or outside the map. */
function wrongOn(map: AirMap, placed: readonly PlacedName[], marks: readonly (readonly [string, Box])[] = []): string[] {
  const shapes: (readonly [string, Box])[] = [
    ...map.zones.flatMap((z) => z.boxes.map((b) => [z.name, b] as const)),
    ...map.joints.map((p) => [`the ${p.joint.name}`, symbolBox(p)] as const),
    ...marks,
  ];
  return placed.flatMap(({ text, box, of }, i) => [
    ...(box.x < 0 || box.y < 0 || box.x + box.w > map.width || box.y + box.h > map.height ? [`${text} outside`] : []),
    ...placed.slice(i + 1).flatMap((other) => (overlap(box, other.box) ? [`${text} on ${other.text}`] : [])),
    ...shapes.flatMap(([what, shape]) => (shape !== of && overlap(box, shape) ? [`${text} on ${what}`] : [])),
  ]);
}

const whole = (map: AirMap): Box => ({ x: 0, y: 0, w: map.width, h: map.height });

const PETROL_ONLY: readonly FittedSystem[] = ["evap", "secondary-air", "runner-flaps", "idle-air"];
const RARE: readonly FittedSystem[] = ["egr-cooler", "low-pressure-egr", "particulate-filter"];
const waysOf = (systems: readonly FittedSystem[]) =>
  Array.from({ length: 2 ** systems.length }, (_, bits) => systems.filter((_, i) => bits & (1 << i)));
const without = (systems: readonly FittedSystem[]) => FITTED_SYSTEMS.filter((s) => !systems.includes(s));

/** Every way a petrol car and a diesel can be fitted, on each kind of engine, and whatever works their valves. */
const VEHICLES: readonly VehicleFacts[] = [
  ...[NATURAL, TURBO, TWO_BANKS].flatMap((base) => waysOf(without(RARE)).map((fitted) => ({ ...base, fitted }))),
  ...[NATURAL, TURBO, TWO_BANKS].flatMap((base) =>
    waysOf(RARE).map((rare) => ({ ...base, fitted: [...without(RARE), ...rare] })),
  ),
  ...[NATURAL, TURBO].flatMap((base) =>
    (Object.keys(WORKED_BY) as WorkedBy[]).flatMap((by) =>
      waysOf(without(PETROL_ONLY)).map(
        (fitted): VehicleFacts => ({
          ...base,
          fuel: "diesel",
          fitted,
          boostWorked: by,
          ...(by === "pressure" ? {} : { egrWorked: by }),
        }),
      ),
    ),
  ),
];

/** A car whose last corner of the map once had no room left for a leak's name. */
const CROWDED = {
  induction: "turbo" as const,
  banks: 1 as const,
  fitted: ["booster" as const, "evap" as const, "runner-flaps" as const],
  evap: {
    monitor: "canister-pump" as const,
    market: "strict" as const,
    tank: { value: 50 as const, unit: "L" as const },
    servicePort: false,
    neck: "cap" as const,
    neckFlap: false,
    tankOneWay: false,
  },
};

describe("the width of a text", () => {
  it("is what the font says", () => {
    const files = join(dirname(createRequire(import.meta.url).resolve("@fontsource/b612/package.json")), "files");
    for (const weight of [400, 700]) {
      const font = openSync(join(files, `b612-latin-${weight}-normal.woff`));
      if (!("layout" in font)) throw new Error("no single font");
      for (const text of ["Fill-limit valve, held open", "Unmetered duct", "PCV hose 0123456789 mm", "Wxyz (Qq)"]) {
        const wide = [...text].reduce((sum, c) => sum + font.glyphForCodePoint(c.codePointAt(0) as number).advanceWidth, 0);
        expect(textWidth(text, 14)).toBeCloseTo((14 * wide) / font.unitsPerEm, 0);
      }
    }
  });
});

describe("names on the map", () => {
  it(`lie on nothing and inside the map, on ${VEHICLES.length} layouts`, () => {
    const wrong = VEHICLES.flatMap((facts) => {
      const map = airMapOf(layoutOf(facts));
      return wrongOn(map, placeNames(map, whole(map), usualNames(map)));
    });
    expect([...new Set(wrong)]).toEqual([]);
  });

  it("do so too with a leak and its size, what is blocked, and where smoke goes in, on any car (property)", () => {
    fc.assert(
      fc.property(anyCar, fc.nat(), fc.nat(), (more, a, b) => {
        const map = airMapOf(layoutOf({ ...NATURAL, ...more }));
        const pick = (n: number) => map.joints[n % map.joints.length] as AirMap["joints"][number];
        const [leak, entry] = [pick(a), pick(b)];
        if (leak === entry) return;
        const arrow = arrowBox(entry);
        const usual = usualNames(map).filter(({ id }) => id !== leak.joint.id);
        const names = [
          ...usual,
          { id: "smoke-in", text: "Smoke in", size: 13, of: arrow, inside: false },
          jointName(leak, `${leak.joint.name} ≈ 1.8 mm`, 14),
        ];
        const placed = placeNames(map, whole(map), names, [burstBox(leak), arrow]);
        expect(wrongOn(map, placed, [["the arrow", arrow]]).filter((w) => !w.startsWith("Smoke in on the"))).toEqual([]);
      }),
      { numRuns: 60, examples: [[CROWDED, 1781542580, 0]] },
    );
  });

  it("stand at what they name: near it, or with a line to it", () => {
    const map = airMapOf(layoutOf({ ...TURBO, fitted: [...FITTED_SYSTEMS] }));
    for (const { box, of, leader, text } of placeNames(map, whole(map), usualNames(map))) {
      const dx = Math.max(0, of.x - (box.x + box.w), box.x - (of.x + of.w));
      const dy = Math.max(0, of.y - (box.y + box.h), box.y - (of.y + of.h));
      expect(leader !== undefined || Math.hypot(dx, dy) <= 22, text).toBe(true);
      if (!leader) continue;
      const [, end] = leader;
      expect(end.x >= of.x && end.x <= of.x + of.w && end.y >= of.y && end.y <= of.y + of.h, text).toBe(true);
    }
  });
});
