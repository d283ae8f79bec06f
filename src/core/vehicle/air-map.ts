import type { Joint, Layout, ZoneId } from "./layout";

/** A rectangle of the map, in map units. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
}

export interface ZonePlace {
  readonly zone: ZoneId;
  readonly name: string;
  /** Pipes the zone is drawn as; the first carries its name. */
  readonly boxes: readonly Box[];
}

export interface Point {
  readonly x: number;
  readonly y: number;
}

export interface JointPlace extends Point {
  readonly joint: Joint;
  /** Which side is free for an arrow that points at it */
  readonly free: "above" | "below";
  /** The passage it sits in, when its zones do not touch: a polyline from zone to zone. */
  readonly passage?: readonly Point[];
}

export interface AirMap {
  readonly width: number;
  readonly height: number;
  readonly zones: readonly ZonePlace[];
  readonly joints: readonly JointPlace[];
}

const WIDTH = 1160;
const HEIGHT = 312;
/** Actuators on the vacuum supply: their width, the gap that a solenoid stands in, and how much lower each further one lies */
const ACTUATOR = { w: 100, gap: 32, step: 44 } as const;
const ACTUATORS: readonly ZoneId[] = ["flap-actuator", "boost-actuator", "egr-actuator", "air-actuator"];
/** Centre line of secondary air, over the exhaust */
const SECONDARY = 74;
/** Centre line of the main flow, left to right */
const MAIN = 142;
const PIPE = 30;
/** Line under the main row that valves between its zones lie on */
const UNDER = 194;
const GAP = 16;
/** Top of the vapour system's row, under the main one, which runs to the right edge */
const VAPOUR = 232;
/** Its zones from left to right: width share and height; valves and their names stand in the gaps. */
const VAPOUR_ROW: readonly (readonly [ZoneId, number, number])[] = [
  ["purge-line", 1, 16],
  ["canister", 0.95, 48],
  ["tank", 1.7, 52],
  ["neck", 0.9, 20],
];
const VAPOUR_GAP = 58;

/** Main row from left to right: width share and height of each zone. */
const MAIN_ROW: readonly (readonly [ZoneId, number, number])[] = [
  ["filter-box", 1.1, 58],
  ["metered-duct", 1.3, PIPE],
  ["hot-pipe", 0.9, PIPE],
  ["cooler", 1, 58],
  ["cold-pipe", 1, PIPE],
  ["manifold", 1.6, 66],
  ["cylinders", 0.8, 90],
  ["exhaust-manifold", 1.2, 36],
  ["front-pipe", 1, PIPE],
  ["filter-can", 1, 58],
  ["tail", 1.3, PIPE],
];

const centre = (box: Box): Point => ({ x: box.x + box.w / 2, y: box.y + box.h / 2 });

/**
 * Where a vehicle's zones and joints stand on the air map: air flows left to right, crankcase above, vacuum branches and
 * the vapour system below. Pure geometry from the layout; what is known is drawn into it elsewhere.
 */
export function airMapOf(layout: Layout): AirMap {
  const boxes = placeZones(layout);
  const zones = layout.zones.map(({ id, name }): ZonePlace => ({ zone: id, name, boxes: boxes.get(id) as Box[] }));
  return { width: WIDTH, height: heightOf(boxes), zones, joints: placeJoints(layout, boxes) };
}

/** Lower with every actuator that stands below the first. */
const heightOf = (boxes: ReadonlyMap<ZoneId, readonly Box[]>): number =>
  HEIGHT + ACTUATOR.step * Math.max(0, ACTUATORS.filter((id) => boxes.has(id)).length - 1);

function placeZones(layout: Layout): Map<ZoneId, Box[]> {
  const has = new Set(layout.zones.map((z) => z.id));
  const row = MAIN_ROW.filter(([id]) => has.has(id));
  const shares = row.reduce((sum, [, share]) => sum + share, 0);
  const unit = (WIDTH - 40 - GAP * (row.length - 1)) / shares;
  const boxes = new Map<ZoneId, Box[]>();
  let x = 20;
  for (const [id, share, h] of row) {
    boxes.set(id, [{ x, y: MAIN - h / 2, w: share * unit, h }]);
    x += share * unit + GAP;
  }
  const main = (id: ZoneId) => (boxes.get(id) as Box[])[0] as Box;
  const manifold = main("manifold");
  const duct = main("metered-duct");
  const cylinders = main("cylinders");
  if (has.has("crankcase")) {
    const crankcase = { x: cylinders.x - 36, y: 16, w: cylinders.w + 90, h: 44 };
    boxes.set("crankcase", [crankcase]);
    const down = duct.x + 6;
    boxes.set("breather", [
      { x: down, y: 30, w: crankcase.x - down - 2, h: 14 },
      { x: down, y: 44, w: 14, h: duct.y - 46 },
    ]);
  }
  if (has.has("booster-branch")) boxes.set("booster-branch", [{ x: manifold.x - 60, y: 242, w: 150, h: 40 }]);
  if (has.has("vacuum-supply")) {
    const shared = layout.joints.some((j) => j.from === "vacuum-supply" && j.to === "booster-branch");
    const right = manifold.x - (shared ? 124 : 84);
    const fed = ACTUATORS.filter((id) => has.has(id));
    const w = Math.min(120, right - 20 - ACTUATOR.w - ACTUATOR.gap);
    boxes.set("vacuum-supply", [{ x: right - w, y: 240, w, h: 26 + ACTUATOR.step * Math.max(0, fed.length - 1) }]);
    fed.forEach((id, i) => {
      const x = right - w - ACTUATOR.gap - ACTUATOR.w;
      boxes.set(id, [{ x, y: 240 + ACTUATOR.step * i, w: ACTUATOR.w, h: 26 }]);
    });
  }
  if (has.has("egr-cooler")) {
    const exhaust = main("exhaust-manifold");
    boxes.set("egr-cooler", [{ x: cylinders.x + 8, y: UNDER, w: exhaust.x - cylinders.x - 8, h: 24 }]);
  }
  if (has.has("air-hose")) {
    const exhaust = main("exhaust-manifold");
    boxes.set("air-hose", [{ x: exhaust.x + 50, y: SECONDARY - 10, w: WIDTH - 140 - exhaust.x, h: 20 }]);
  }
  if (has.has("purge-line")) {
    const from = manifold.x + manifold.w * 0.72;
    const room = WIDTH - 20 - from - VAPOUR_GAP * (VAPOUR_ROW.length - 1);
    const sum = VAPOUR_ROW.reduce((total, [, share]) => total + share, 0);
    const middle = VAPOUR + 26;
    let left = from;
    for (const [id, share, h] of VAPOUR_ROW) {
      const w = (room * share) / sum;
      boxes.set(id, [
        { x: left, y: middle - h / 2, w, h },
        ...(id === "purge-line" ? [{ x: from, y: 226, w: 14, h: middle - 8 - 226 }] : []),
      ]);
      left += w + VAPOUR_GAP;
    }
    const canister = (boxes.get("canister") as Box[])[0] as Box;
    boxes.set("vent-hose", [{ x: canister.x + canister.w * 0.55, y: 188, w: 110, h: 14 }]);
  }
  return boxes;
}

function placeJoints(layout: Layout, boxes: ReadonlyMap<ZoneId, readonly Box[]>): JointPlace[] {
  const first = (id: ZoneId) => (boxes.get(id) as Box[])[0] as Box;
  const at = (joint: Joint, x: number, y: number, passage?: readonly Point[]): JointPlace => ({
    joint,
    x,
    y,
    free: "above",
    ...(passage ? { passage } : {}),
  });
  return layout.joints.map((joint): JointPlace => {
    const from = first(joint.from);
    if (joint.kind === "seal") return seal(layout, joint, from);
    if (joint.id === "vacuum-pump") return at(joint, centre(from).x, from.y);
    if (joint.to === "outside") return at(joint, joint.from === "filter-box" ? from.x : from.x + from.w, centre(from).y);
    const to = first(joint.to);
    /** Half way down a straight passage */
    const down = (x: number, top: number, bottom: number) =>
      at(joint, x, (top + bottom) / 2, [
        { x, y: top },
        { x, y: bottom },
      ]);
    /** Half way along a level passage between two zones side by side */
    const across = (y: number) => {
      const [left, right] = from.x < to.x ? [from, to] : [to, from];
      return at(joint, (left.x + left.w + right.x) / 2, y, [
        { x: left.x + left.w, y },
        { x: right.x, y },
      ]);
    };
    switch (joint.id) {
      case "pcv-valve":
        return down(to.x + to.w - 16, from.y + from.h, to.y);
      case "booster-check-valve":
        return joint.from === "manifold" ? down(from.x + 30, from.y + from.h, to.y) : across(centre(to).y);
      case "purge-valve":
        return down(to.x + 7, from.y + from.h, to.y - 24);
      case "vent-valve":
        return down(to.x + 16, to.y + to.h, from.y);
      case "purge-canister":
      case "neck-flap":
      case "neck-tank":
      case "fill-limit-valve":
        return across(centre(from).y);
      case "flap-solenoid":
      case "boost-solenoid":
      case "egr-solenoid":
      case "air-solenoid":
        return across(centre(to).y);
      case "air-valve":
      case "air-valve-1":
        return down(from.x + 12, from.y + from.h, to.y);
      case "air-valve-2":
        return down(from.x + 40, from.y + from.h, to.y);
      case "breather-duct":
        return at(joint, from.x + 7, to.y - 4);
      case "breather-port":
        return at(joint, to.x + to.w, centre(to).y);
      case "flap-check-valve":
        return at(joint, to.x + to.w + 26, 226, [
          { x: from.x + 12, y: from.y + from.h },
          { x: from.x + 12, y: 226 },
          { x: to.x + to.w - 20, y: 226 },
          { x: to.x + to.w - 20, y: to.y },
        ]);
      case "idle-air":
        return at(joint, (from.x + from.w + to.x) / 2 - 4, 92, [
          { x: from.x + from.w - 22, y: from.y },
          { x: from.x + from.w - 22, y: 92 },
          { x: to.x + 14, y: 92 },
          { x: to.x + 14, y: to.y },
        ]);
      case "egr-pipe-joint":
        return at(joint, from.x + 20, centre(to).y, [
          { x: from.x + 20, y: from.y + from.h },
          { x: from.x + 20, y: centre(to).y },
          { x: to.x + to.w, y: centre(to).y },
        ]);
      case "low-egr-valve": {
        // Below everything, from behind the filter to the duct.
        const [a, b] = [from.x + from.w - 10, to.x + 8];
        const y = heightOf(boxes) - 14;
        return at(joint, (a + b) / 2, y, [
          { x: a, y: from.y + from.h },
          { x: a, y },
          { x: b, y },
          { x: b, y: to.y + to.h },
        ]);
      }
      case "egr-valve":
      case "bypass-valve": {
        if (joint.from === "egr-cooler") {
          const b = to.x + to.w * 0.86;
          return at(joint, (from.x + b) / 2, centre(from).y, [
            { x: from.x, y: centre(from).y },
            { x: b, y: centre(from).y },
            { x: b, y: to.y + to.h },
          ]);
        }
        // Under the main row, from one zone to another.
        const [a, b] = [from.x + 14, to.x + to.w * 0.4];
        return at(joint, 0.75 * a + 0.25 * b, UNDER, [
          { x: a, y: from.y + from.h },
          { x: a, y: UNDER },
          { x: b, y: UNDER },
          { x: b, y: to.y + to.h },
        ]);
      }
      default:
        return across(MAIN);
    }
  });
}

/** A seal on the edge of its zone: on top of broad zones and of the vapour row's, under other pipes and the crankcase. */
function seal(layout: Layout, joint: Joint, box: Box): JointPlace {
  const seals = layout.joints.filter((j) => j.from === joint.from && j.kind === "seal");
  const x = box.x + (box.w * (seals.indexOf(joint) + 1)) / (seals.length + 1);
  const below = joint.from === "crankcase" || (box.h < 40 && !VAPOUR_ROW.some(([zone]) => zone === joint.from));
  return { joint, x, y: below ? box.y + box.h : box.y, free: below ? "below" : "above" };
}

/** Outline of the star that marks a leak, about its own centre: points of an SVG polygon. */
export const BURST_POINTS = Array.from({ length: 16 }, (_, i) => {
  const radius = i % 2 === 0 ? 13 : 6.5;
  const angle = (i * Math.PI) / 8;
  return `${(radius * Math.sin(angle)).toFixed(1)},${(-radius * Math.cos(angle)).toFixed(1)}`;
}).join(" ");
