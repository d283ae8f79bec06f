import type { Layout } from "./layout";

/** Supplies a teardown needs beforehand. */
export const KIT_KINDS = {
  seal: "Single-use seal",
  fluid: "Fluid to drain and refill",
  fastener: "Fastener that will break",
  cover: "Cover to keep debris out",
  stays: "Seal that stays behind in its bore",
} as const;
export type KitKind = keyof typeof KIT_KINDS;

export interface KitItem {
  readonly kind: KitKind;
  readonly what: string;
  readonly ready: boolean;
}

type Row = readonly [KitKind, string];

/** Supplies that each place asks for when it is opened; the maker's list goes before it. */
const AT_JOINT: ReadonlyMap<string, readonly Row[]> = new Map(
  Object.entries({
    "manifold-gasket": [
      ["seal", "Manifold gasket, one for each flange"],
      ["seal", "Injector seals, upper and lower"],
      ["stays", "Old injector seals stick in their bores: count them out"],
      ["fastener", "Manifold nuts and studs: rusted ones shear"],
      ["cover", "Covers for open intake ports"],
      ["fluid", "Coolant, where the manifold carries it"],
    ],
    "throttle-gasket": [
      ["seal", "Throttle body gasket"],
      ["cover", "Cover for the open plenum"],
      ["fluid", "Coolant, where the throttle body is heated"],
    ],
    "injector-seals": [
      ["seal", "Injector seals, upper and lower"],
      ["stays", "Lower seals stay in their bores"],
      ["cover", "Caps for open rail and ports"],
    ],
    "plenum-crack": [
      ["seal", "Plenum gasket"],
      ["cover", "Covers for open runners"],
    ],
    "pcv-hose": [["fastener", "Clamps of the PCV hose: single-use ones"]],
    "pcv-diaphragm": [
      ["seal", "PCV cover seal"],
      ["fastener", "Cover clips: brittle when old"],
    ],
    "cover-gasket": [
      ["seal", "Valve-cover gasket and spark-plug tube seals"],
      ["fastener", "Cover screws with their own seals"],
    ],
    "booster-hose": [["fastener", "Clamp at the manifold nipple"]],
    "flap-diaphragm": [["fastener", "Lever's clip: lost more often than kept"]],
    "air-valve": [
      ["seal", "Switching valve gasket"],
      ["fluid", "Engine oil and filter, where ports are cleaned with water"],
      ["fluid", "Water or cleaner: count what goes in and what comes out"],
      ["cover", "Plug for the exhaust port that is not worked on"],
    ],
    "exhaust-gasket": [
      ["seal", "Exhaust gasket"],
      ["fastener", "Studs and copper nuts: heat and soak first"],
    ],
  } satisfies Record<string, readonly Row[]>),
);

/** The teardown kit proposed for a place: what is single-use, drains, breaks, must be covered or stays behind. */
export function teardownKit(layout: Layout, place: string): KitItem[] {
  const joint = layout.joints.find((j) => j.id === place);
  const base = place.replace(/-ports$/, "").replace(/-[12]$/, "");
  const rows: readonly Row[] =
    AT_JOINT.get(place) ??
    AT_JOINT.get(base) ??
    (joint ? [["fastener", `Clamps, clips or bolts at ${joint.name}: what will not go back on twice`]] : []);
  return rows.map(([kind, what]) => ({ kind, what, ready: false }));
}
