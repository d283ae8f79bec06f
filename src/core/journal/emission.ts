import type { Layout, ZoneId } from "../vehicle";

/** Emission devices by the zones that make them up: what lies in one, or works one, disables it while it is bypassed. */
const DEVICES: readonly (readonly [string, readonly ZoneId[]])[] = [
  ["the EGR system", ["egr-cooler", "egr-actuator"]],
  ["secondary air", ["air-hose", "air-actuator"]],
  ["the vapour system (EVAP)", ["purge-line", "canister", "vent-hose", "tank", "neck"]],
  ["the particulate filter", ["filter-can"]],
];
/** Joints that are such a device by themselves. */
const JOINTS: Readonly<Record<string, string>> = {
  "egr-valve": "the EGR system",
  "low-egr-valve": "the EGR system",
  catalyst: "the catalyst",
  "filter-core": "the particulate filter",
  "purge-valve": "the vapour system (EVAP)",
};

/** The emission devices that a bypass at these places disables, each as it is called in a sentence. */
export function disabledBy(places: readonly string[], layout: Layout): string[] {
  const joints = layout.joints.filter((j) => places.includes(j.id));
  const byZone = joints.flatMap((j) =>
    DEVICES.filter(([, zones]) => [j.from, j.to].some((z) => zones.includes(z as ZoneId))).map(([name]) => name),
  );
  return [...new Set([...places.flatMap((id) => JOINTS[id] ?? []), ...byZone])];
}
