import type { CheckId } from "../../checks";
import { pinsOf } from "../../checks/circuit/pins";
import { lookList } from "../../checks/look";
import type { SmokeRun } from "../../checks/smoke";
import { type Lamp, STILL_AND_LIT } from "../../devices/light";
import type { Trait } from "../../faults";
import { orificeFlow } from "../../gas/orifice";
import { ballCurve } from "../../shop/machine";
import { fromSi, toSi } from "../../units";
import { entriesOf, type FillSetup, reachOf, usualSetup, type ZoneId } from "../../vehicle";
import { type Car, type Fault, faultsAt, holeOf, holesOf, stateAt } from "../car";
import { SmokeFill, type SmokePush } from "../smoke-fill";
import { type Bay, chosen, faultsThere, gaugeIn, leftIn, percent, placeOf, type Reader, type Setup, shown, showsTo } from "./bay";
import { machineShows } from "./instrument";

/** What eyes, hands and ears find; one look in thirty takes something sound for bad. */
const look: Reader = ({ car, noise }, setup) => {
  const list = lookList(car.context.layout, car.context.vehicle);
  const wrong = noise.uniform() < 1 / 30 ? Math.floor(noise.uniform(3, list.length - 2)) : -1;
  const asked = chosen<readonly string[] | undefined>(setup, "ids", undefined);
  return {
    items: list
      .filter((item) => !asked || asked.includes(item.id))
      .map((item, i) => {
        const there = item.joint ? faultsAt(car, item.joint) : [];
        const found = there.some((f) => showsTo(car, f, "eye")) || i === wrong;
        return { id: item.id, state: found ? "found" : "fine" };
      }),
  };
};

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
const smoke: Reader = (bay, setup) =>
  smokeRecord(bay, fillSetup(bay.car, setup), chosen(setup, "machine", MACHINE), chosen(setup, "lookedAt", undefined));

/** A stop at which everything is listened to and soaped, Pa gauge. */
const STOPS = [30e3, 60e3, 100e3];
/** Soap blows at so much, kg/s; what is heard is so much more. */
const BUBBLES = 2e-6;
const pressureTest: Reader = (bay, setup) => {
  const { car } = bay;
  const fill = { entry: chosen(setup, "entry", placeOf(setup)), blocked: [], heldOpen: [] };
  const reach = reachOf(car.context.layout, fill);
  const bar = (pa: number) => shown(pa, "bar", 0.01, "gauge");
  const max = car.context.vehicle.maxBoost ? toSi(car.context.vehicle.maxBoost) : 100e3;
  const stops = STOPS.map((stop) => Math.min(stop, max)).filter((stop, i, all) => all.indexOf(stop) === i);
  const escapes = car.faults.flatMap((fault) => {
    const { joint } = fault.cause;
    const hole = holeOf(fault, car.context.vehicle);
    if (!joint || hole <= 0 || !reach.tested.some((j) => j.id === joint)) return [];
    const at = stops.find(
      (stop) =>
        orificeFlow({
          upstream: car.ambient + stop,
          downstream: car.ambient,
          temperature: car.temperature,
          diameter: hole,
        }).massFlow > BUBBLES,
    );
    return at === undefined ? [] : [{ joint, sign: "soap", from: bar(at) }];
  });
  return {
    ...fill,
    maxBoost: bar(max),
    ratings: { tool: bar(2e5) },
    steps: stops.map((stop) => ({ pressure: bar(stop) })),
    escapes,
    everywhere: true,
    instrument: gaugeIn("bar", 0.02),
  };
};

/** Traits that let a held vacuum go, and gas space between a hand pump and a part, m³. */
const LETS_GO: readonly Trait[] = ["actuator-leak", "booster-leak", "supply-weak"];
const SPACE = 4e-5;
const RESERVOIR = 6e-4;
const PULLED = -67.7e3;
const inHg = (pa: number) => percent(-fromSi(pa, "inHg").value, 0.1);

/** Vacuum that a part still holds after so many s, Pa gauge. */
const heldAt = (bay: Bay, place: string, seconds: number): number => {
  const leak = faultsThere(bay, place, ...LETS_GO)[0];
  const space = place === "flap-line" || place.startsWith("booster") ? RESERVOIR : SPACE;
  return leak ? leftIn(bay.car, space, holeOf(leak, bay.car.context.vehicle), PULLED, seconds) : PULLED * 0.995;
};

const hold: Reader = (bay, setup) => {
  const { car } = bay;
  const place = placeOf(setup);
  const series = (seconds: number): [number, number][] =>
    [0, seconds / 2, seconds].map((t) => [t, Math.max(0, inHg(heldAt(bay, place, t)))]);
  const stuck =
    place.endsWith("-diaphragm") &&
    car.faults.some((f) => f.cause.trait === "boost-lazy" || (f.cause.trait === "device-stuck" && place === "flap-diaphragm"));
  const leaks = heldAt(bay, place, 20) > 0.5 * PULLED;
  return {
    joint: place,
    part: place.endsWith("-diaphragm") ? "actuator" : place === "flap-line" ? "reservoir" : "line",
    ...(place.endsWith("-diaphragm") ? { moved: !leaks, ...(leaks ? {} : { reach: stuck ? "short" : "full" }) } : {}),
    unit: "inHg",
    still: series(60),
    wiggled: series(40),
    instrument: gaugeIn("inHg", 0.1),
  };
};

/** It is the passage that is blocked, and the valve in it moves: a purge line, and every other EGR that is coked. */
const passageBlocked = ({ cause, size }: Fault): boolean =>
  cause.id === "purge-line-blocked" || (cause.trait === "egr-blocked" && size < 0.45);

/** A valve's seat and stroke, each held for a minute. */
const valve: Reader = (bay, setup) => {
  const { car } = bay;
  const place = placeOf(setup);
  const rests = car.context.layout.joints.find((j) => j.id === place)?.rest === "open" ? "open" : "closed";
  const leak = faultsThere(bay, place, "purge-leak", "inside-leak", "vent-open")[0];
  const dead = faultsThere(bay, place, "circuit-dead").length > 0;
  const power = chosen<string>(setup, "power", "scan-tool");
  const stuck = faultsThere(bay, place, "valve-stuck", "idle-control", "purge-blocked", "egr-blocked").some(
    (f) => f.cause.joint === place && !passageBlocked(f),
  );
  const stuckShut = faultsThere(bay, place, "vent-blocked").length > 0;
  const works = !stuck && !(dead && power !== "12v");
  const shutLoses = leak ? Math.max(0, inHg(leftIn(car, SPACE, holeOf(leak, car.context.vehicle), PULLED, 60))) : 19.8;
  const shut = { start: 20, end: shutLoses, seconds: 60 };
  const open = { start: 20, end: 0, seconds: 60 };
  const asked =
    rests === "closed"
      ? { rest: shut, energised: works ? open : { start: 20, end: 19.8, seconds: 60 } }
      : { rest: stuckShut ? { start: 20, end: 19.8, seconds: 60 } : open, energised: works ? shut : stuckShut ? shut : open };
  return {
    joint: place,
    rests,
    power,
    unplugged: chosen(setup, "unplugged", false),
    clicked: works || (stuck && !dead),
    part: "fitted",
    temperature: chosen(setup, "temperature", "cold"),
    unit: "inHg",
    ...asked,
    instrument: gaugeIn("inHg", 0.1),
  };
};

/** Traits by which a commanded part does not answer. */
const DEAD: readonly Trait[] = [
  "valve-stuck",
  "circuit-dead",
  "device-stuck",
  "air-pump-dead",
  "egr-blocked",
  "idle-control",
  "vent-open",
  "purge-blocked",
];
const output: Reader = (bay, setup) => {
  const { car } = bay;
  const place = placeOf(setup);
  // A diaphragm that leaks does not move what its solenoid commands; a vent that does not shut is not heard to fail.
  const unworked =
    place.endsWith("-solenoid") &&
    car.faults.some((f) => f.cause.device === place || (f.cause.trait === "supply-weak" && f.size > 0.5));
  const dead = faultsThere(bay, place, ...DEAD).some((f) => !passageBlocked(f) && f.cause.id !== "vent-open") || unworked;
  return {
    joint: place,
    output: chosen(setup, "output", place),
    command: chosen(setup, "command", "on"),
    limit: chosen(setup, "limit", 30),
    rearmed: chosen(setup, "rearmed", true),
    expected: chosen(setup, "expected", "it answers"),
    seen: dead ? "nothing" : "as-expected",
    seenAfter: 5,
  };
};

const BATTERY = 14.1;
const circuit: Reader = (bay, setup) => {
  const { noise } = bay;
  const place = placeOf(setup);
  const wiring = chosen<"two-wire" | "relay">(setup, "wiring", place === "air-pump" ? "relay" : "two-wire");
  const switched = chosen<"ground" | "feed">(setup, "switched", "ground");
  const broken = faultsThere(bay, place, "circuit-dead")[0];
  const pins = pinsOf(wiring, switched);
  // Where the break lies: what comes before it is good, what comes after it is dead.
  const from = broken ? Math.min(pins.length - 1, Math.floor(broken.size * pins.length)) : pins.length;
  const volts = (value: number) => shown(Math.max(0, value + noise.normal(0.02)), "V", 0.01);
  return {
    joint: place,
    wiring,
    switched,
    battery: volts(BATTERY),
    engineRunning: chosen(setup, "engineRunning", true),
    needsEngine: true,
    readings: pins.map((pin, i) => {
      const good = i < from;
      if (pin.expects === "lamp") return { pin: pin.id, lamp: good ? "bright" : "dark" };
      return { pin: pin.id, voltage: volts(pin.expects === "nothing" ? (good ? 0.02 : 6) : good ? BATTERY - 0.2 : 0.1) };
    }),
    pierced: chosen(setup, "pierced", false),
    instrument: gaugeIn("V", 0.01),
  };
};

const chain: Reader = (bay, setup) => {
  const { car, noise } = bay;
  const is = (id: string) => car.faults.find((f) => f.cause.id === id);
  const supply = is("flap-line");
  const idle = car.context.vehicle.fuel === "diesel" ? 24 : fromSi(car.ambient - stateAt(car, {}).map, "inHg").value;
  const inlet = Math.max(0, (supply ? idle * (0.55 - 0.3 * supply.size) : idle) + noise.normal(0.2));
  const works = !["flap-circuit", "flap-solenoid", "flap-shaft"].some(is) && !supply;
  return {
    device: chosen(setup, "device", "Runner flaps"),
    links: {
      supply: shown(fromSiInHg(inlet), "inHg", 0.1, "vacuum"),
      battery: { value: 14, unit: "V" },
      control: { value: is("flap-circuit") ? 0.1 : 13.6, unit: "V" },
      outlet: shown(fromSiInHg(is("flap-solenoid") || is("flap-circuit") ? 0.5 : inlet * 0.97), "inHg", 0.1, "vacuum"),
      diaphragm: {
        start: 20,
        end: inHg(heldAt(bay, is("flap-pipe") ? "flap-pipe" : "flap-diaphragm", 60)),
        seconds: 60,
        unit: "inHg",
      },
      shaft: !is("flap-shaft"),
      movement: works && !is("flap-diaphragm") && !is("flap-pipe"),
      plate: !is("flap-plate"),
    },
    instrument: gaugeIn("inHg", 0.1),
  };
};
const fromSiInHg = (value: number) => toSi({ value, unit: "inHg" });

const COKED: readonly Trait[] = ["ports-coked", "restriction", "exhaust-restriction", "air-ports", "egr-blocked"];
const borescope: Reader = (bay, setup) => {
  const { noise } = bay;
  const place = placeOf(setup);
  const blocked = faultsThere(bay, place, ...COKED)[0];
  const share = Math.round((blocked ? 55 - 35 * blocked.size : 95) + noise.normal(2));
  const names = chosen<readonly string[]>(setup, "names", ["Port 1"]);
  return {
    joint: place,
    when: chosen(setup, "when", "as-found"),
    ports: names.map((name) => ({ name, straight: Math.min(100, share + 2), side: Math.min(100, share) })),
    pictures: [],
  };
};

/** Checks with the engine standing, and those of what is commanded. */
export const STANDING: Partial<Record<CheckId, Reader>> = {
  look,
  smoke,
  "pressure-test": pressureTest,
  hold,
  valve,
  output,
  circuit,
  chain,
  borescope,
};
