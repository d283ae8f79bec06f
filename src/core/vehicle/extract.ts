import type { AirMap, Box, JointPlace } from "./air-map";

/** The part of an air map around a joint: what a finding is pictured by. */
export function mapAround(map: AirMap, jointId: string, size = { w: 420, h: 190 }): { view: Box; at: JointPlace } | undefined {
  const at = map.joints.find((p) => p.joint.id === jointId);
  if (!at) return undefined;
  const clamp = (middle: number, span: number, whole: number) =>
    Math.min(Math.max(0, middle - span / 2), Math.max(0, whole - span));
  return { at, view: { x: clamp(at.x, size.w, map.width), y: clamp(at.y, size.h, map.height), ...size } };
}
