import type { AirMap, Box, JointPlace } from "./air-map";
import { burstBox, jointName, type PlacedName, placeNames, zoneName } from "./map-names";

/** A part of an air map: what a finding is pictured by. */
export interface MapExtract {
  readonly view: Box;
  readonly at: JointPlace;
  /** The name of what was found */
  readonly name: PlacedName;
  /** Names of the zones around it that have room in the picture */
  readonly zones: readonly PlacedName[];
}

/** A zone of which less than this is seen is not named, share of its width. */
const SEEN = 0.5;

/** The part of an air map around a joint; undefined when the joint is not on the map. @param more said behind its name. */
export function mapAround(map: AirMap, jointId: string, more = "", size = { w: 420, h: 190 }): MapExtract | undefined {
  const at = map.joints.find((p) => p.joint.id === jointId);
  if (!at) return undefined;
  const clamp = (middle: number, span: number, whole: number) =>
    Math.min(Math.max(0, middle - span / 2), Math.max(0, whole - span));
  const view = { x: clamp(at.x, size.w, map.width), y: clamp(at.y, size.h, map.height), ...size };
  const near = map.zones.filter(({ boxes: [first] }) => {
    if (!first) return false;
    const w = Math.min(first.x + first.w, view.x + view.w) - Math.max(first.x, view.x);
    const middle = first.y + first.h / 2;
    return w > SEEN * first.w && middle > view.y && middle < view.y + view.h;
  });
  const [name, ...zones] = placeNames(
    map,
    view,
    [jointName(at, [at.joint.name, more].filter(Boolean).join(" "), 14), ...near.map(zoneName)],
    [burstBox(at)],
  );
  return { at, view, name: name as PlacedName, zones: zones.filter((z) => z.free) };
}
