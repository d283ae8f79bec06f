import type { NetworkEvent } from "@/core/gas/network/case";
import type { NetworkSpec } from "@/core/gas/network/network";

/** Networks whose solution is stored, made by another method: `bench/network-reference.ts`. */
export interface ReferenceCase {
  readonly spec: NetworkSpec;
  readonly events: readonly NetworkEvent[];
  /** s; away from events where a valve's law has a corner there */
  readonly times: readonly number[];
}

const AMBIENT = 101_325;
const WARM = 293.15;
const CD = 0.61;
const hole = (mm: number) => ({ type: "orifice", effectiveArea: (CD * Math.PI * (mm * 1e-3) ** 2) / 4 }) as const;
const zone = (id: string, litres: number, pressure = AMBIENT, wallTime?: number, temperature = WARM) => ({
  id,
  volume: litres * 1e-3,
  pressure,
  temperature,
  ...(wallTime === undefined ? {} : { wallTime }),
});
const air = { ambient: AMBIENT, temperature: WARM };
/** An engine: litres of displacement at a speed and a breathing, m³/s out of the manifold. */
const engine = (litres: number, rpm: number, breathing: number) =>
  ({ type: "sweep", rate: (breathing * litres * 1e-3 * rpm) / 120 }) as const;

export const REFERENCE_CASES: Readonly<Record<string, ReferenceCase>> = {
  "fill-and-settle": {
    spec: {
      ...air,
      zones: [zone("hose", 0.2), zone("tank", 30, AMBIENT, 25), zone("neck", 1.5, AMBIENT, 20)],
      joints: [
        { id: "machine", from: "outside", to: "hose", law: { type: "regulator", setPressure: AMBIENT + 3238, maxFlow: 2.4e-4 } },
        { id: "port", from: "hose", to: "tank", law: hole(6) },
        { id: "flap", from: "tank", to: "neck", law: { type: "pipe", resistance: 4e5 } },
        { id: "leak", from: "neck", to: "outside", law: hole(0.9) },
      ],
    },
    events: [],
    times: [0.5, 1, 2, 3, 4, 5, 8, 15, 30, 60, 120],
  },
  decay: {
    spec: {
      ...air,
      zones: [zone("tank", 30, AMBIENT + 2490, 25, 294.9), zone("line", 0.4, AMBIENT + 2490, 8)],
      joints: [
        { id: "line", from: "tank", to: "line", law: hole(4) },
        { id: "leak", from: "line", to: "outside", law: hole(0.508) },
      ],
    },
    events: [],
    times: [5, 15, 30, 60, 90, 120, 180, 240],
  },
  "pull-down": {
    spec: {
      ...air,
      zones: [zone("manifold", 4, 34_000), zone("canister", 2.5, AMBIENT, 12), zone("tank", 28, AMBIENT, 25)],
      joints: [
        { id: "throttle", from: "outside", to: "manifold", law: hole(5.6) },
        { id: "engine", from: "manifold", to: "outside", law: engine(1.6, 800, 0.85) },
        { id: "purge", from: "canister", to: "manifold", law: hole(0) },
        { id: "bed", from: "canister", to: "tank", law: { type: "pipe", resistance: 1.5e6 } },
        { id: "vent", from: "outside", to: "canister", law: hole(0.2) },
        { id: "leak", from: "outside", to: "tank", law: hole(0.5) },
      ],
    },
    events: [
      { at: 5, joint: 2, law: hole(0.8) },
      { at: 30, joint: 2, law: hole(0.03) },
      { at: 70, joint: 4, law: hole(9) },
    ],
    times: [4, 6, 8, 12, 20, 29, 31, 40, 55, 69, 71, 73, 80],
  },
  "throttle-step": {
    spec: {
      ...air,
      zones: [zone("duct", 3), zone("manifold", 3.5, 40_000, 3)],
      joints: [
        { id: "filter", from: "outside", to: "duct", law: { type: "pipe", resistance: 2.5e4 } },
        { id: "throttle", from: "duct", to: "manifold", law: hole(9) },
        { id: "engine", from: "manifold", to: "outside", law: engine(2, 1500, 0.82) },
        { id: "leak", from: "outside", to: "manifold", law: hole(2) },
      ],
    },
    events: [
      { at: 1, joint: 1, law: hole(34) },
      { at: 2, joint: 1, law: hole(7) },
    ],
    times: [0.2, 0.9, 1.01, 1.03, 1.06, 1.2, 1.9, 2.02, 2.1, 2.3, 2.8],
  },
  "boost-step": {
    spec: {
      ...air,
      zones: [zone("hot-pipe", 1.5, AMBIENT), zone("cooler", 5, AMBIENT, 0.8), zone("manifold", 3, AMBIENT)],
      joints: [
        { id: "compressor", from: "outside", to: "hot-pipe", law: { type: "pump", maxFlow: 0.11, stallPressure: 60_000 } },
        { id: "hot", from: "hot-pipe", to: "cooler", law: { type: "pipe", resistance: 3e4 } },
        { id: "cold", from: "cooler", to: "manifold", law: hole(38) },
        { id: "engine", from: "manifold", to: "outside", law: engine(2, 2400, 0.88) },
        { id: "leak", from: "cooler", to: "outside", law: hole(4) },
      ],
    },
    events: [
      { at: 0.5, joint: 0, law: { type: "pump", maxFlow: 0.16, stallPressure: 190_000 } },
      { at: 2, joint: 0, law: { type: "pump", maxFlow: 0.11, stallPressure: 40_000 } },
    ],
    times: [0.1, 0.4, 0.52, 0.6, 0.8, 1.2, 1.9, 2.05, 2.3, 3],
  },
  "one-way": {
    spec: {
      ...air,
      zones: [zone("manifold", 3, 35_000), zone("booster", 2, AMBIENT, 6)],
      joints: [
        { id: "throttle", from: "outside", to: "manifold", law: hole(5.2) },
        { id: "engine", from: "manifold", to: "outside", law: engine(1.6, 820, 0.84) },
        { id: "check", from: "booster", to: "manifold", law: { type: "one-way", effectiveArea: hole(2.5).effectiveArea } },
        { id: "diaphragm", from: "outside", to: "booster", law: hole(0.3) },
      ],
    },
    events: [{ at: 6, joint: 0, law: hole(30) }],
    times: [0.3, 1, 2, 4, 5.5, 7, 8, 10, 15],
  },
  choked: {
    spec: {
      ...air,
      zones: [zone("bottle", 10, 800_000, 30), zone("pipe", 0.2, AMBIENT, 1.5)],
      joints: [
        { id: "valve", from: "bottle", to: "pipe", law: hole(2) },
        { id: "out", from: "pipe", to: "outside", law: hole(2.4) },
      ],
    },
    events: [],
    times: [0.02, 0.05, 0.1, 0.3, 1, 3, 8, 20],
  },
};
