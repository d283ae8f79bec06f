import {
  type AirMap,
  alwaysNamed,
  arrowBox,
  burstBox,
  type JointPlace,
  jointName,
  type MapName,
  type PlacedName,
  placeNames,
  zoneName,
} from "@/core/vehicle";

/** Wording of a joint on the map, and how that is drawn. */
export interface Saying {
  readonly joint: string;
  readonly text: string;
  readonly colour: string;
  readonly bold: boolean;
  readonly leaks: boolean;
  readonly entry: boolean;
}

interface Marks {
  readonly setup?: { readonly entry: string; readonly blocked: readonly string[]; readonly heldOpen: readonly string[] };
  readonly at?: string;
  readonly leaks: readonly string[];
  /** Joints that are off the car */
  readonly off: readonly string[];
}

/** Wording of each joint that is named now: the weightiest thing there is to say. @param size said of a leak. */
export const sayings = (map: AirMap, marks: Marks, size: (joint: string) => string): Saying[] =>
  map.joints.flatMap((place): Saying[] => {
    const { id, name } = place.joint;
    const entry = marks.setup?.entry === id;
    const is = (list: readonly string[] | undefined) => list?.includes(id) ?? false;
    const say = (text: string, colour: string, bold = false) => [
      { joint: id, text, colour: `var(--${colour})`, bold, entry, leaks: is(marks.leaks) },
    ];
    if (is(marks.leaks)) return say(`${name}${size(id)}`, "ember", true);
    if (marks.at === id) return say(name, "live", true);
    if (is(marks.setup?.blocked)) return say(`${name}, blocked`, "amber");
    if (is(marks.setup?.heldOpen)) return say(`${name}, held open`, "live");
    if (is(marks.off) && !entry) return say(name, "amber");
    return alwaysNamed(place) ? say(name, "muted") : entry ? say("", "live") : [];
  });

/** A name in its place, and how it is drawn. */
interface Label {
  readonly name: PlacedName;
  readonly colour: string;
  readonly bold: boolean;
}

/** Every name on the map in its place: zones first, then what always stands there, then what is said now. */
export function namesOn(map: AirMap, said: readonly Saying[]): Label[] {
  const places = new Map(map.joints.map((p): [string, JointPlace] => [p.joint.id, p]));
  const at = ({ joint }: Saying) => places.get(joint) as JointPlace;
  const entry = said.find((s) => s.entry);
  const arrow = entry && arrowBox(at(entry));
  const wanted: [MapName, string, boolean][] = [
    ...map.zones.map((z): [MapName, string, boolean] => [zoneName(z), "var(--ink)", false]),
    ...said
      .filter((s) => s.text !== "")
      .toSorted((a, b) => Number(a.bold) - Number(b.bold))
      .map((s): [MapName, string, boolean] => [jointName(at(s), s.text, s.bold ? 14 : 13), s.colour, s.bold]),
  ];
  if (arrow) wanted.push([{ id: "way-in", text: "In here", size: 13, of: arrow, inside: false }, "var(--live)", false]);
  const marks = [...said.filter((s) => s.leaks).map((s) => burstBox(at(s))), ...(arrow ? [arrow] : [])];
  const placed = placeNames(
    map,
    { x: 0, y: 0, w: map.width, h: map.height },
    wanted.map(([name]) => name),
    marks,
  );
  return placed.map((name, i) => ({ name, colour: wanted[i]?.[1] as string, bold: wanted[i]?.[2] as boolean }));
}
