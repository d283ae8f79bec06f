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
  /** Pipes the zone is drawn as; the first carries its label. */
  readonly boxes: readonly Box[];
  readonly label: { readonly x: number; readonly y: number };
}

export interface JointPlace {
  readonly joint: Joint;
  readonly x: number;
  readonly y: number;
  /** The passage it sits in, when its zones do not touch: a polyline from zone to zone. */
  readonly passage?: readonly (readonly [number, number])[];
}

export interface AirMap {
  readonly width: number;
  readonly height: number;
  readonly zones: readonly ZonePlace[];
  readonly joints: readonly JointPlace[];
}

const WIDTH = 1160;
const HEIGHT = 292;
/** Centre line of the main flow, left to right */
const MAIN = 142;
const PIPE = 30;

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
  ["tail", 1.3, PIPE],
];

const centre = (box: Box) => ({ x: box.x + box.w / 2, y: box.y + box.h / 2 });

/**
 * Where a vehicle's zones and joints stand on the air map: air flows left to right, crankcase above, vacuum branches and
 * EVAP below. Pure geometry from the layout; what is known is drawn into it elsewhere.
 */
export function airMapOf(layout: Layout): AirMap {
  const has = new Set(layout.zones.map((z) => z.id));
  const row = MAIN_ROW.filter(([id]) => has.has(id));
  const shares = row.reduce((sum, [, share]) => sum + share, 0);
  const gap = 16;
  const unit = (WIDTH - 40 - gap * (row.length - 1)) / shares;
  const boxes = new Map<ZoneId, Box[]>();
  let x = 20;
  for (const [id, share, h] of row) {
    boxes.set(id, [{ x, y: MAIN - h / 2, w: share * unit, h }]);
    x += share * unit + gap;
  }
  const main = (id: ZoneId) => (boxes.get(id) as Box[])[0] as Box;
  const manifold = main("manifold");
  const duct = main("metered-duct");
  const cylinders = main("cylinders");
  if (has.has("crankcase")) boxes.set("crankcase", [{ x: cylinders.x - 36, y: 16, w: cylinders.w + 90, h: 44 }]);
  if (has.has("breather") && has.has("crankcase")) {
    const crankcase = (boxes.get("crankcase") as Box[])[0] as Box;
    const down = duct.x + duct.w * 0.35;
    boxes.set("breather", [
      { x: down, y: 30, w: crankcase.x - down - 2, h: 14 },
      { x: down, y: 44, w: 14, h: duct.y - 46 },
    ]);
  }
  if (has.has("booster-branch")) boxes.set("booster-branch", [{ x: manifold.x - 70, y: 232, w: 150, h: 40 }]);
  if (has.has("purge-line")) {
    const from = manifold.x + manifold.w * 0.72;
    boxes.set("purge-line", [
      { x: from, y: 246, w: 330, h: 16 },
      { x: from, y: 204, w: 14, h: 42 },
    ]);
  }
  const zones = layout.zones.map((zone): ZonePlace => {
    const own = boxes.get(zone.id) as Box[];
    const first = own[0] as Box;
    const at = centre(first);
    const inside = first.h >= 40;
    return { zone: zone.id, name: zone.name, boxes: own, label: { x: at.x, y: inside ? at.y + 5 : first.y + first.h + 17 } };
  });
  return { width: WIDTH, height: HEIGHT, zones, joints: placeJoints(layout, boxes) };
}

function placeJoints(layout: Layout, boxes: ReadonlyMap<ZoneId, readonly Box[]>): JointPlace[] {
  const first = (id: ZoneId) => (boxes.get(id) as Box[])[0] as Box;
  const sealsOf = (id: ZoneId) => layout.joints.filter((j) => j.from === id && j.kind === "seal");
  return layout.joints.map((joint): JointPlace => {
    const from = first(joint.from);
    if (joint.kind === "seal") {
      const seals = sealsOf(joint.from);
      const i = seals.indexOf(joint);
      return { joint, x: from.x + (from.w * (i + 1)) / (seals.length + 1), y: i % 2 === 0 ? from.y : from.y + from.h };
    }
    if (joint.to === "outside") {
      const left = joint.from === "filter-box";
      return { joint, x: left ? from.x : from.x + from.w, y: centre(from).y };
    }
    const to = first(joint.to);
    switch (joint.id) {
      case "pcv-valve": {
        const x = to.x + to.w - 16;
        return vertical(joint, x, from.y + from.h, to.y);
      }
      case "booster-check-valve":
        return vertical(joint, from.x + 30, from.y + from.h, to.y);
      case "purge-valve":
        return vertical(joint, to.x + 7, from.y + from.h, to.y - 42);
      case "breather-duct":
        return { joint, x: from.x + 7, y: to.y - 4 };
      case "egr-valve":
      case "bypass-valve":
        return under(joint, centre(from).x, centre(to).x, from.y + from.h, to.y + to.h);
      default: {
        const rightOf = from.x < to.x ? from : to;
        const leftOf = from.x < to.x ? to : from;
        return { joint, x: (rightOf.x + rightOf.w + leftOf.x) / 2, y: joint.id === "breather-port" ? centre(to).y : MAIN };
      }
    }
  });
}

/** A joint half way down a straight passage. */
function vertical(joint: Joint, x: number, top: number, bottom: number): JointPlace {
  return {
    joint,
    x,
    y: (top + bottom) / 2,
    passage: [
      [x, top],
      [x, bottom],
    ],
  };
}

/** A joint in a passage that runs under the main row from one zone to another. */
function under(joint: Joint, fromX: number, toX: number, fromBottom: number, toBottom: number): JointPlace {
  const y = MAIN + 62;
  return {
    joint,
    x: (fromX + toX) / 2,
    y,
    passage: [
      [fromX, fromBottom],
      [fromX, y],
      [toX, y],
      [toX, toBottom],
    ],
  };
}
