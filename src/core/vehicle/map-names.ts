import type { AirMap, Box, JointPlace, Point, ZonePlace } from "./air-map";

/** Advance widths of B612, thousandths of the type size, letters of one width together; both weights have the same. */
const WIDTHS: readonly (readonly [string, number])[] = [
  ["'|", 200],
  [",;", 250],
  [".:Iij", 300],
  [" !l", 350],
  ['"frt', 400],
  ["()-Js", 450],
  ["=]cz", 500],
  ["a", 525],
  ["$*/?FLS\\_`ekvxy", 550],
  ["+CEKPTYZbdghnopqu}≈", 600],
  ["0123456789<>ABDGRVX{", 650],
  ["&HU", 700],
  ["N^w~", 750],
  ["OQ", 800],
  ["#", 850],
  ["%Mm", 900],
  ["W", 950],
  ["@", 1000],
];
const WIDTH_OF = new Map(WIDTHS.flatMap(([letters, width]) => [...letters].map((letter): [string, number] => [letter, width])));
const WIDEST = 1000;

/** How wide a text of the map is in B612, in the units of its size; a letter that the table lacks counts as the widest. */
export const textWidth = (text: string, size: number): number =>
  ([...text].reduce((sum, letter) => sum + (WIDTH_OF.get(letter) ?? WIDEST), 0) * size) / 1000;

/** A name that stands on the map. */
export interface MapName {
  readonly id: string;
  readonly text: string;
  /** Type size, map units */
  readonly size: number;
  /** Part that it names: it stands inside if it fits there, or else near it */
  readonly of: Box;
  /** Whether it may stand inside */
  readonly inside: boolean;
}

/** Where a name stands: the middle of its baseline, and the box that it fills. */
export interface PlacedName extends MapName, Point {
  readonly box: Box;
  /** It lies on nothing */
  readonly free: boolean;
  /** It stands inside what it names */
  readonly within: boolean;
  /** From its edge to what it names, where it stands too far off to be read with it */
  readonly leader?: readonly [Point, Point];
}

/** Height of a line of text and of what stands over the baseline, shares of the type size. */
const LINE = 1.15;
const ASCENT = 0.85;
/** Free rim around names, map units */
const RIM = 3;
/** Names stand so far from what they name where there is room */
const CLEAR = 4;
/** Farther off than this a line leads to what is named */
const NEAR = 22;
/** Places are looked for so far apart, and in wider and wider reach until one is free, map units */
const STEP = { x: 6, y: 4 };
const REACHES = [
  { x: 30, y: 26 },
  { x: 90, y: 56 },
  { x: 220, y: 110 },
] as const;
const FARTHEST = REACHES[2].x;
/** Penalty of a name for lying on a shape at all, more than for any way off; and on a passage, each square unit. */
const ON_SHAPE = 1000;
const ON_PASSAGE = 0.25;

const overlap = (a: Box, b: Box): number => {
  const w = Math.min(a.x + a.w, b.x + b.w) - Math.max(a.x, b.x);
  const h = Math.min(a.y + a.h, b.y + b.h) - Math.max(a.y, b.y);
  return w > 0 && h > 0 ? w * h : 0;
};
const gap = (a: Box, b: Box): number => {
  const dx = Math.max(0, b.x - (a.x + a.w), a.x - (b.x + b.w));
  const dy = Math.max(0, b.y - (a.y + a.h), a.y - (b.y + b.h));
  return Math.hypot(dx, dy);
};
const grown = (box: Box, by: number): Box => ({ x: box.x - by, y: box.y - by, w: box.w + 2 * by, h: box.h + 2 * by });
const around = ({ x, y }: Point, w: number, h: number): Box => ({ x: x - w / 2, y: y - h / 2, w, h });

/** Width and height of what stands in a joint, by its kind, map units. */
const SYMBOLS: Readonly<Record<JointPlace["joint"]["kind"], readonly [number, number]>> = {
  meter: [4, 52],
  compressor: [40, 40],
  throttle: [6, 50],
  valve: [24, 24],
  seal: [8, 8],
  opening: [8, 8],
  pipe: [8, 8],
  engine: [8, 8],
};

/** The box that a joint's symbol fills. */
export const symbolBox = (place: JointPlace): Box => around(place, ...SYMBOLS[place.joint.kind]);

/** Area that a passage fills, a box a leg. */
const passageBoxes = ({ passage = [] }: JointPlace): Box[] =>
  passage.slice(1).map((to, i) => {
    const from = passage[i] as Point;
    const [x, y] = [Math.min(from.x, to.x), Math.min(from.y, to.y)];
    return grown({ x, y, w: Math.abs(to.x - from.x), h: Math.abs(to.y - from.y) }, 3.5);
  });

/** Shapes that names keep clear of on a map: pipes and vessels, and what stands in joints. */
const shapesOf = (map: Pick<AirMap, "zones" | "joints">): Box[] => [
  ...map.zones.flatMap((z) => z.boxes),
  ...map.joints.map(symbolBox),
];

/** How often the order is changed for those that found no room */
const TURNS = 6;

/**
 * Places names where they lie neither on each other nor on a shape: inside what they name where they fit, or as near to it
 * as there is room. Earlier names have the first choice, unless a later one then finds no room at all.
 * @param map shapes, and the rectangle that is seen of them; map units. @param marks further shapes, such as an arrow.
 * Pure geometry: greedy, over a grid of places around each thing; what found no room goes first the next time.
 */
export function placeNames(
  map: Pick<AirMap, "zones" | "joints">,
  seen: Box,
  names: readonly MapName[],
  marks: readonly Box[] = [],
): PlacedName[] {
  const shapes = [...shapesOf(map), ...marks];
  const passages = map.joints.flatMap(passageBoxes);
  const inOrder = (order: readonly MapName[]) => {
    const placed = new Map<MapName, PlacedName>();
    for (const name of order) {
      const taken = [...placed.values()].map((p) => p.box);
      placed.set(name, placedName(name, seen, [...shapes, ...taken], passages));
    }
    return placed;
  };
  let order = names;
  let best = inOrder(order);
  const caughtIn = (placed: typeof best) => order.filter((name) => !placed.get(name)?.free);
  for (let turn = 1, caught = caughtIn(best), fewest = caught.length; turn < TURNS && caught.length > 0; turn++) {
    order = [...caught, ...order.filter((name) => !caught.includes(name))];
    const again = inOrder(order);
    caught = caughtIn(again);
    if (caught.length < fewest) [best, fewest] = [again, caught.length];
  }
  return names.map((name) => best.get(name) as PlacedName);
}

function placedName(name: MapName, seen: Box, shapes: readonly Box[], passages: readonly Box[]): PlacedName {
  const { of, size } = name;
  const [w, h] = [textWidth(name.text, size) + 2 * RIM, LINE * size + RIM];
  const middle = { x: of.x + of.w / 2, y: of.y + of.h / 2 };
  const inside = around(middle, w, h);
  const done = (box: Box, free: boolean, leader?: readonly [Point, Point]): PlacedName => ({
    ...name,
    box,
    free,
    within: box === inside,
    x: box.x + w / 2,
    y: box.y + RIM / 2 + ASCENT * size,
    ...(leader ? { leader } : {}),
  });
  const others = shapes.filter((shape) => shape !== of && gap(shape, of) < FARTHEST + w);
  if (name.inside && w <= of.w && h <= of.h && others.every((shape) => overlap(inside, shape) === 0)) return done(inside, true);
  const over = others.concat(of);
  let best: { box: Box; cost: number; free: boolean } | undefined;
  for (const reach of REACHES) {
    if (best?.free) break;
    for (let y = of.y - reach.y - h; y <= of.y + of.h + reach.y; y += STEP.y) {
      if (y < seen.y || y + h > seen.y + seen.h) continue;
      for (let x = of.x - reach.x - w; x <= of.x + of.w + reach.x; x += STEP.x) {
        if (x < seen.x || x + w > seen.x + seen.w) continue;
        const box = { x, y, w, h };
        // Near first, then over or under the middle rather than beside it.
        let cost = Math.abs(gap(box, of) - CLEAR) + 0.08 * Math.abs(x + w / 2 - middle.x);
        if (best && cost >= best.cost) continue;
        let covered = 0;
        for (const shape of over) covered += overlap(box, shape);
        if (covered > 0) cost += ON_SHAPE + covered;
        if (best && cost >= best.cost) continue;
        for (const passage of passages) cost += ON_PASSAGE * overlap(box, passage);
        if (!best || cost < best.cost) best = { box, cost, free: covered === 0 };
      }
    }
  }
  // A map too small for the text keeps it at what it names.
  const { box, free } = best ?? { box: inside, free: false };
  return done(box, free, gap(box, of) > NEAR ? leaderOf(box, of) : undefined);
}

/** The shortest line from a name to what it names. */
function leaderOf(box: Box, of: Box): readonly [Point, Point] {
  const nearest = (p: Point, b: Box): Point => ({
    x: Math.min(Math.max(p.x, b.x), b.x + b.w),
    y: Math.min(Math.max(p.y, b.y), b.y + b.h),
  });
  const target = nearest({ x: box.x + box.w / 2, y: box.y + box.h / 2 }, of);
  return [nearest(target, box), target];
}

/** Kinds of joint whose name always stands on the map. */
const NAMED: readonly JointPlace["joint"]["kind"][] = ["meter", "compressor", "throttle", "valve"];

/** A zone's name on the map. */
export const zoneName = ({ zone, name, boxes }: ZonePlace): MapName => ({
  id: zone,
  text: name,
  size: 14,
  of: boxes[0] as Box,
  inside: true,
});

/** A joint's name on the map, or what is said of it there. */
export const jointName = (place: JointPlace, text = place.joint.name, size = 13): MapName => ({
  id: place.joint.id,
  text,
  size,
  of: symbolBox(place),
  inside: false,
});

/** Whether a joint's name always stands on the map. */
export const alwaysNamed = ({ joint }: JointPlace): boolean => NAMED.includes(joint.kind);

/** The names that stand on a map whatever is known: of every zone, and of what sits in the flow. */
export const usualNames = (map: AirMap): MapName[] => [
  ...map.zones.map(zoneName),
  ...map.joints.filter(alwaysNamed).map((place) => jointName(place)),
];

/** Area of the star of a leak. */
export const burstBox = (place: Point): Box => around(place, 28, 28);

/** Area of the arrow that shows where smoke goes in. */
export const arrowBox = ({ x, y, free }: JointPlace): Box => around({ x, y: free === "below" ? y + 29 : y - 29 }, 28, 40);
