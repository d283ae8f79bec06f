import type { FaultFamily } from "../family";
import { causes } from "./causes";
import { CODES } from "./codes";
import { rows } from "./rows";
import { CONFIRM_MINUTES } from "./traits";

/** Causes that make an engine breathe or burn wrongly: leaks, blockages, stuck devices, lying meters, fuel. */
export const engine = {
  fitted: () => true,
  causes,
  leaksInto: {
    "metered-duct": "duct-leak",
    breather: "duct-leak",
    "hot-pipe": "charge-leak",
    cooler: "charge-leak",
    "cold-pipe": "charge-leak",
    manifold: "manifold-leak",
    "booster-branch": "booster-leak",
    crankcase: "crankcase-leak",
    "vacuum-supply": "actuator-leak",
    "flap-actuator": "actuator-leak",
    "exhaust-manifold": "exhaust-air",
  },
  confirmMinutes: CONFIRM_MINUTES,
  commanded: ["purge-valve", "flap-solenoid", "egr-valve", "idle-air"],
  codes: CODES,
  symptoms: [
    ["hiss-idle", "Hiss or whistle at idle"],
    ["hiss-load", "Hiss under load"],
    ["rough-idle", "Rough or hunting idle"],
    ["low-power", "Weak under load, limp mode"],
    ["cold-worse", "Worse when cold"],
    ["brake-hard", "Hard brake pedal"],
    ["oil-smell", "Oil smell or mist"],
    ["ticking-cold", "Ticking when cold"],
    ["whistle-cap", "Whistle that changes with the oil cap"],
    ["dull-low", "Dull at low speed"],
    ["comes-and-goes", "Comes and goes"],
    ["stalls", "Stalls coming to idle"],
    ["black-smoke", "Black smoke under load"],
  ],
  rows,
} as const satisfies FaultFamily;
