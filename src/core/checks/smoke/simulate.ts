import { type Lamp, STILL_AND_LIT } from "../../devices/light";
import { orificeFlow } from "../../gas/orifice";
import { type Car, holeOf, holesOf } from "../../practice/car";
import { type Bay, chosen, percent, placeOf, type Setup, shown, showsTo } from "../../practice/readers/bay";
import { machineShows } from "../../practice/readers/instrument";
import { SmokeFill, type SmokePush } from "../../practice/smoke-fill";
import { ballCurve } from "../../shop/machine";
import { fromSi, toSi } from "../../units";
import { entriesOf, type FillSetup, reachOf, usualSetup, type ZoneId } from "../../vehicle";
import type { SmokeRun } from ".";

/** A bay's smoke machine. */
const MACHINE = {
  name: "Bay smoker",
  ratedPressure: { value: 13, unit: "inH2O", kind: "gauge" },
  maxFlow: { value: 12, unit: "L/min" },
  autoOff: 600,
} as const;

/** Smoke is seen where so much of it comes out, m³/s: a thread in still air before a lamp. */
const THREAD = 8e-7;

/** How many times as much it takes by another light, and in a draught or the light of the day. */
const BY_LAMP: Readonly<Record<Lamp, number>> = { none: 25, lamp: 1, blue: 1.4, laser: 0.5 };

const BY_DOOR = 10;

/** How long a run is watched, s. */
const RUN = 150;

/** A fill of the car's layout with its holes. */
const fillOf = ({ car, noise }: Bay, setup: FillSetup, push: SmokePush): SmokeFill =>
  new SmokeFill(car.context.layout, setup, push, holesOf(car), car, Math.floor(noise.uniform(1, 1e9)));

const fillSetup = (car: Car, setup: Setup): FillSetup => {
  const { layout } = car.context;
  const place = chosen<string | undefined>(setup, "entry", undefined) ?? placeOf(setup) ?? "";
  const usual = usualSetup(layout, place || (entriesOf(layout)[0]?.id as string));
  return {
    entry: usual.entry,
    ...(setup.into ? { into: setup.into as ZoneId } : {}),
    blocked: [...chosen<readonly string[]>(setup, "blocked", usual.blocked)],
    heldOpen: [...chosen<readonly string[]>(setup, "heldOpen", usual.heldOpen)],
  };
};

/** Where the ball of a calibrated machine stands for a flow in its unit: its own curve, turned round. */
function heightOf({ calibration, maxFlow }: SmokeRun["machine"], { ambient, temperature }: Car): (flow: number) => number {
  if (!calibration) return (flow) => flow;
  const curve = ballCurve(calibration, { ambient, temperature });
  const top = 2 * maxFlow.value;
  return (flow) => {
    const asked = toSi({ value: flow, unit: maxFlow.unit });
    let [low, high] = [0, top];
    for (let i = 0; i < 40; i++) {
      const middle = (low + high) / 2;
      if (curve.flowAt(middle).flow < asked) low = middle;
      else high = middle;
    }
    return high;
  };
}

/**
 * Joints at which smoke of a run comes out and is seen by who looks there, by the light and in the air that there is.
 * @param lookedAt joints that were looked along; all of them where nobody says.
 */
export function smokeSeen(
  { car, light = STILL_AND_LIT, instruments = {} }: Omit<Bay, "noise">,
  setup: FillSetup,
  pressure: number,
  lookedAt?: readonly string[],
): string[] {
  if (instruments["smoke-machine"] === "heater-out") return [];
  const reach = reachOf(car.context.layout, setup);
  const thread = THREAD * BY_LAMP[light.lamp] * (light.door === "open" ? BY_DOOR : 1);
  return car.faults.flatMap((fault) => {
    const { joint } = fault.cause;
    const hole = holeOf(fault, car.context.vehicle);
    if (!joint || hole <= 0 || !reach.tested.some((j) => j.id === joint) || !showsTo(car, fault, "smoke")) return [];
    if (lookedAt && !lookedAt.includes(joint)) return [];
    const upstream = car.ambient + Math.max(1, pressure);
    const out = orificeFlow({ upstream, downstream: car.ambient, temperature: car.temperature, diameter: hole });
    return out.massFlow / 1.2 >= thread ? [joint] : [];
  });
}

/**
 * A run as it is read off ball and gauge every five seconds: what smoke machine and car make of this setup.
 * @param machine the shop's, whose own scale the ball is read on; the bay's where none is given. @param lookedAt as `smokeSeen` takes it.
 */
export function smokeRecord(
  bay: Bay,
  fill: FillSetup,
  machine: SmokeRun["machine"] = MACHINE,
  lookedAt?: readonly string[],
): SmokeRun {
  const { car, noise, light = STILL_AND_LIT, instruments = {} } = bay;
  const push = { ratedPressure: toSi(machine.ratedPressure), maxFlow: toSi(machine.maxFlow) };
  const units = { flow: machine.maxFlow.unit, pressure: machine.ratedPressure.unit };
  const network = fillOf(bay, fill, push);
  const height = heightOf(machine, car);
  const samples: [number, number, number][] = [];
  for (let t = 1; t <= RUN; t += 5) {
    network.advance(t);
    const { flow, pressure } = network.read();
    samples.push([
      t,
      percent(height(fromSi(flow, units.flow).value), 0.05),
      percent(fromSi(pressure, units.pressure).value, 0.01),
    ]);
  }
  const reach = reachOf(car.context.layout, fill);
  const seen = smokeSeen(bay, fill, network.read().pressure, lookedAt);
  const run: SmokeRun = {
    machine,
    proof: {
      pressure: shown(push.ratedPressure * (1 + noise.normal(0.01)), units.pressure, 0.01, "gauge"),
      ballAtBottom: true,
      smokeSeen: true,
    },
    ...fill,
    heaterOnAt: -60,
    units,
    samples,
    arrivals: reach.zones.filter((z) => !reach.behindEngine.includes(z)).map((zone, i) => ({ zone, at: 30 + 6 * i })),
    seen: seen.map((joint) => ({ joint, at: RUN - 20 })),
    noSmokeOutside: seen.length === 0 && !lookedAt,
    cameUndone: [],
    touchedBefore: [],
    adapterLeaks: false,
    draughtOrGlare: light.door === "open" || light.lamp === "none",
    zeroed: true,
    ambient: shown(car.ambient, "hPa", 1, "absolute"),
    temperature: shown(car.temperature, "°C", 1),
    endedAt: RUN,
  };
  return machineShows(run, instruments["smoke-machine"]);
}

export const simulate = (bay: Bay, setup: Setup): SmokeRun =>
  smokeRecord(bay, fillSetup(bay.car, setup), chosen(setup, "machine", MACHINE), chosen(setup, "lookedAt", undefined));
