import type { Layout, VehicleFacts } from "../../vehicle";

/** Where one stands to look, in the order one walks. */
export const STANDS = {
  front: "At the front",
  top: "Over the engine",
  under: "Underneath",
  tail: "At the filler and tailpipe",
} as const;
export type Stand = keyof typeof STANDS;

export interface LookItem {
  readonly id: string;
  readonly text: string;
  readonly stand: Stand;
  /** Joint it bears on, or the suspect, when it is one place */
  readonly joint?: string;
}

const AT_JOINT: Record<string, string> = {
  "duct-split": "Duct: bend it open at every fold, feel underneath",
  "duct-clamp": "Duct clamps: on the bead, not turned, not cross-threaded",
  "breather-duct": "Breather hose: on at both ends, not soft with oil",
  "filter-lid": "Filter box lid: clips shut, seal not pinched",
  "booster-hose": "Booster hose: soft ends, oil-swollen, rubbing",
  "pcv-hose": "PCV hose: squeeze the bends, look underneath",
  "purge-hose": "Purge hose at the manifold: on its nipple, not hard",
  "vacuum-branch": "Small vacuum hoses: perished ends, splits, one off its nipple",
  "pcv-diaphragm": "PCV cover: hiss at its vent hole, oil round it",
  "flap-line": "Vacuum lines and reservoir of the flaps: cracked ends, rubbing",
  "flap-pipe": "Pipe at the flap actuator: bend it, wiggle its ends",
  "oil-cap": "Oil cap: seated, seal whole (do not tighten it)",
  dipstick: "Dipstick: pushed home, seal whole",
  "gauge-port": "Vacuum ports and caps: none missing, none cracked",
  "hot-pipe-clamp": "Hot pipe clamp: oil mist trail, pipe pushed home",
  "hot-pipe-split": "Hot pipe: oil mist trail, rub marks, cracks at its bends",
  "cold-pipe-split": "Cold pipe: oil mist trail, rub marks, cracks at its bends",
  "cold-pipe-clamp": "Cold pipe clamp: oil mist trail, pipe pushed home",
  "cooler-inlet": "Cooler inlet: clamp square on its bead, no oil trail",
  "cooler-outlet": "Cooler outlet: clamp square on its bead, no oil trail",
  "cooler-tank": "Cooler end tanks: oil at the crimp",
  "flap-spindle": "Runner-flap spindle: play, oil at its end",
  "injector-seals": "Injector seals: listen and look for washed-clean spots",
  "filler-cap": "Filler cap: seal whole, seated (do not tighten or touch it before the check)",
  "cap-seat": "Neck's sealing face under the cap: rust, dents (after the first run only)",
  "neck-hose": "Filler neck: rust at its bends, hose ends, breather hose",
  "tank-line": "Vapour lines at the tank: latched, not rubbing on the body",
  "canister-joint": "Canister: cracks, connectors latched, stone damage, dust or spider at its vent",
  "purge-line-joint": "Purge line: connectors latched, rub marks along the body",
  "service-port": "Service port: cap on, core not wet",
  "air-pump": "Secondary-air pump: water in it, rattles, its hose on",
  "air-hose-joint": "Secondary-air hose: split, rubbed through, both ends on",
  "air-valve": "Secondary-air switching valve: hose hard or burnt from hot gas, plug on",
  "filter-pipe-front": "Filter's front pressure pipe: on, not chafed, not blocked",
  "filter-pipe-rear": "Filter's rear pressure pipe: on, not chafed, not blocked",
  "exhaust-gasket": "Exhaust gasket before the sensor: soot trail, ticking when cold",
};

/** Joints that are not seen from above. */
const FROM: Readonly<Record<string, Stand>> = {
  "filter-lid": "front",
  "hot-pipe-clamp": "front",
  "hot-pipe-split": "front",
  "cold-pipe-split": "front",
  "cold-pipe-clamp": "front",
  "cooler-inlet": "front",
  "cooler-outlet": "front",
  "cooler-tank": "front",
  "canister-joint": "under",
  "purge-line-joint": "under",
  "filter-pipe-front": "under",
  "filter-pipe-rear": "under",
  "exhaust-gasket": "under",
  "tank-line": "under",
  "filler-cap": "tail",
  "cap-seat": "tail",
  "neck-hose": "tail",
};

/** The list fitted to this vehicle: general places first, then the joints it has. */
export function lookList(layout: Layout, vehicle: VehicleFacts): LookItem[] {
  return [
    { id: "earlier-work", text: "Signs that someone was here before: new clamps, sealant, missing screws", stand: "top" },
    { id: "filter", text: "Air filter: condition, seated, nothing left in the box", joint: "filter-clogged", stand: "front" },
    { id: "snorkel-free", text: "Snorkel and air path free: leaves, rag, nest", stand: "front" },
    ...layout.joints.flatMap((joint) => {
      const text = AT_JOINT[joint.id];
      return text ? [{ id: joint.id, text, joint: joint.id, stand: FROM[joint.id] ?? "top" }] : [];
    }),
    {
      id: "hiss",
      text: `Listen with a tube at idle: hiss at gasket, hoses${vehicle.induction === "turbo" ? ", charge pipes" : ""}`,
      stand: "top",
    },
    { id: "connectors", text: "Connectors of MAF and sensors: seated, locked, wiggled", stand: "top" },
  ];
}
