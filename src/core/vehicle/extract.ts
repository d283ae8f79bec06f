import type { AirMap, Box, JointPlace, ZonePlace } from "./air-map";

/** A part of an air map: what a finding is pictured by. */
export interface MapExtract {
  readonly view: Box;
  readonly at: JointPlace;
  /** Zones whose name stands wholly inside */
  readonly named: readonly ZonePlace[];
}

/** The part of an air map around a joint; undefined when the joint is not on the map. */
export function mapAround(map: AirMap, jointId: string, size = { w: 420, h: 190 }): MapExtract | undefined {
  const at = map.joints.find((p) => p.joint.id === jointId);
  if (!at) return undefined;
  const clamp = (middle: number, span: number, whole: number) =>
    Math.min(Math.max(0, middle - span / 2), Math.max(0, whole - span));
  const view = { x: clamp(at.x, size.w, map.width), y: clamp(at.y, size.h, map.height), ...size };
  const named = map.zones.filter(({ name, label }) => {
    const half = 4.2 * name.length;
    return label.x - half > view.x && label.x + half < view.x + view.w && label.y > view.y + 14 && label.y < view.y + view.h;
  });
  return { at, view, named };
}
