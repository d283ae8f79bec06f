import type { CheckId } from "../../checks";
import { behind } from "../../checks/pinch";
import { spotsOf } from "../../checks/probe/candidates";
import { R_AIR } from "../../gas/air";
import { burntFuel } from "../../vehicle";
import { engineTruth, hasTrait, holeOf, holesOf, stateAt } from "../car";
import { type Driving, type EngineTruth, type OperatingState, PracticeEngine } from "../engine";
import { airArrives } from "../monitors";
import { type Bay, chosen, faultsThere, gaugeIn, percent, placeOf, type Reader, shown, showsTo } from "./bay";
import { dryExhaust } from "./gas";

const IDLE: Driving = {};
const held = (rpm: number): Driving => ({ foot: rpm });
const WIDE = 3500;
/** Spread of what the instruments show, as shares or in their units. */
const METER = 0.012;
/** The same as the mean of a steady moment in a log. */
const HELD_METER = 0.006;
const TRIM = 0.9;

const ambientOf = ({ car }: Bay) => shown(car.ambient, "hPa", 1, "absolute");
const airOf = ({ car }: Bay) => shown(car.temperature, "°C", 1);

/** Speed that swings from stroke to stroke, to the next 10. */
const rpmOf = ({ noise }: Bay, state: OperatingState) => Math.round((state.rpm + noise.normal(8)) / 10) * 10;
const meterOf = ({ noise }: Bay, state: OperatingState, spread = METER) =>
  shown(state.meter * (1 + noise.normal(spread)), "g/s", 0.01);
const mapOf = ({ noise }: Bay, state: OperatingState) => shown(state.map + noise.normal(300), "kPa", 0.1, "absolute");

/** Trims at idle, held without load, cruising and at full pull. */
const trims: Reader = (bay) => {
  const { car, noise } = bay;
  const points: Driving[] = [
    IDLE,
    held(1500),
    held(2500),
    { road: { rpm: 2200, map: 0.62 * car.ambient } },
    { road: { rpm: 3400 } },
  ];
  const turbo = car.context.vehicle.induction === "turbo";
  return {
    source: { kind: "typed" },
    ambient: ambientOf(bay),
    intakeTemperature: airOf(bay),
    points: points.map((driving) => {
      const state = stateAt(car, driving);
      return {
        rpm: rpmOf(bay, state),
        maf: meterOf(bay, state),
        map: mapOf(bay, state),
        ...(turbo ? { chargePressure: shown(state.charge + noise.normal(150), "kPa", 0.1, "absolute") } : {}),
        coolant: shown(363, "°C", 1),
        closedLoop: true,
        banks: state.trims.map((t) => ({ short: 0, long: percent(100 * t + noise.normal(TRIM)) })),
      };
    }),
  };
};

/** Trim of all banks at a point, percent. */
const trimOf = (state: OperatingState) => (100 * state.trims.reduce((a, b) => a + b, 0)) / state.trims.length;

/** Gas that is drawn in burns for a share of its own flow. */
const ENRICHES = 55;
const probe: Reader = (bay, setup) => {
  const { car, noise } = bay;
  const spots = chosen<readonly string[]>(setup, "spots", spotsOf(car.context.layout));
  const agent = chosen(setup, "agent", "gas");
  const idle = stateAt(car, IDLE);
  const sucked = (joint: string) => {
    const fault = faultsThere(bay, joint)[0];
    const hole = fault && holeOf(fault, car.context.vehicle);
    if (!hole || !showsTo(car, fault, "probe")) return 0;
    const leak = idle.air - idle.meter;
    return Math.min(12, ENRICHES * Math.max(0, leak / Math.max(1e-6, idle.air))) * (agent === "gas" ? 1 : 0.5);
  };
  const speed = 740;
  return {
    agent,
    source: { kind: "typed" },
    closedLoop: true,
    taps: spots.map((joint) => {
      const before = trimOf(idle) + noise.normal(0.8);
      const reacts = sucked(joint);
      return {
        joint,
        typed: {
          trimBefore: percent(before),
          trimAfter: percent(before - reacts + noise.normal(0.6)),
          rpmBefore: Math.round(speed + noise.normal(5)),
          rpmAfter: Math.round(speed + reacts * 4 + noise.normal(6)),
        },
      };
    }),
  };
};

const vacuum: Reader = (bay) => {
  const { car, noise } = bay;
  const idle = stateAt(car, IDLE);
  const worn = hasTrait(car, "engine-mechanical");
  return {
    vacuum: shown(car.ambient - idle.map + noise.normal(800), "inHg", 0.1, "vacuum"),
    rpm: rpmOf(bay, idle),
    needle: worn && worn.size > 0.4 ? "regular-flick" : hasTrait(car, "idle-control") ? "drifting" : "steady",
    // The pedal is snapped without load: a turbocharger makes no boost in it.
    snap:
      stateAt(car, { road: { rpm: WIDE, map: 0.97 * car.ambient } }).front > 1.35 * car.ambient
        ? "slow-return"
        : "drops-and-overshoots",
    portSound: true,
    warm: true,
    instrument: gaugeIn("inHg", 0.1),
    ambient: ambientOf(bay),
  };
};

const airflow: Reader = (bay) => {
  const { car } = bay;
  const metered = car.context.vehicle.metering === "maf";
  const point = (state: "idle" | "wide-open", driving: Driving) => {
    const at = stateAt(car, driving);
    return { state, rpm: rpmOf(bay, at), ...(metered ? { maf: meterOf(bay, at) } : {}), map: mapOf(bay, at) };
  };
  return {
    source: { kind: "typed" },
    points: [point("idle", IDLE), point("wide-open", { road: { rpm: WIDE } })],
    ambient: ambientOf(bay),
    intakeTemperature: airOf(bay),
    warm: true,
  };
};

/** Crankcase pressure by what goes in past the rings and what draws it out, Pa gauge: the breather's suction, or too much of the manifold's. */
const crankcase: Reader = (bay) => {
  const { car, noise } = bay;
  const at = (raised: boolean) => {
    const passes = hasTrait(car, "pcv-passes");
    if (passes) return -(2600 + 2400 * passes.size) * (raised ? 0.8 : 1);
    const worn = hasTrait(car, "engine-mechanical");
    const blocked = hasTrait(car, "crankcase-blocked");
    const blowBy = worn ? 80 + 420 * worn.size : 0;
    const vented = hasTrait(car, "crankcase-leak") ? 0.35 : 1;
    return (blocked ? 300 + 500 * blocked.size : -330 * vented) + blowBy * (raised ? 1.8 : 1);
  };
  return {
    idle: shown(at(false) + noise.normal(40), "hPa", 0.1, "gauge"),
    raised: shown(at(true) + noise.normal(40), "hPa", 0.1, "gauge"),
    rpm: rpmOf(bay, stateAt(car, IDLE)),
    warm: true,
    sealed: true,
    instrument: gaugeIn("hPa", 0.1, "Manometer"),
  };
};

/** A branch shut off while total trim is watched: what lies behind it lets nothing in. */
const pinch: Reader = (bay, setup) => {
  const { car, noise } = bay;
  const place = placeOf(setup);
  const hidden = behind(car.context.layout, place);
  const holes = holesOf(car).filter((h) => !hidden.includes(h.joint) && car.context.layout.joints.some((j) => j.id === h.joint));
  const faults = car.faults.filter((f) => !f.cause.joint || !hidden.includes(f.cause.joint));
  const before = stateAt(car, IDLE);
  const without: Partial<EngineTruth> = faults.length === car.faults.length ? {} : { hole: engineTruth({ ...car, faults }).hole };
  const shut = holes.length === holesOf(car).length ? before : stateAt(car, IDLE, without);
  const watched = chosen<string>(setup, "reads", "trim");
  const read = (state: OperatingState) =>
    watched === "rpm"
      ? Math.round(state.rpm + noise.normal(6))
      : watched === "vacuum"
        ? shown(car.ambient - state.map + noise.normal(500), "inHg", 0.1).value
        : percent(trimOf(state) + noise.normal(0.6));
  return {
    joint: place,
    how: chosen(setup, "how", "pinch"),
    blankProved: chosen(setup, "blankProved", true),
    reads: watched,
    ...(watched === "vacuum" ? { unit: "inHg" } : {}),
    before: read(before),
    shut: read(shut),
    released: read(before),
  };
};

/** A pull in one gear: steady moments off boost and under it. */
const boost: Reader = (bay) => {
  const { car, noise } = bay;
  const { vehicle } = car.context;
  const offset = hasTrait(car, "boost-sensor");
  const wrong = offset ? 4000 + 5000 * offset.size : 0;
  const full = engineTruth(car).boost ?? 0;
  const points = [1600, 2000, 2400, 2800, 3200].flatMap((rpm) =>
    [0, 0.35, 0.6, 0.8, 1].map((pull): Driving => ({ road: { rpm, map: car.ambient + pull * full } })),
  );
  const asked = (d: Driving) => d.road?.map ?? car.ambient;
  return {
    source: { kind: "typed" },
    points: points.map((driving) => {
      const state = stateAt(car, driving);
      const under = asked(driving) > car.ambient + 1;
      return {
        rpm: rpmOf(bay, state),
        map: mapOf(bay, state),
        charge: shown(state.charge + wrong + noise.normal(300), "kPa", 0.1, "absolute"),
        ...(under ? { asked: shown(asked(driving), "kPa", 0.1, "absolute") } : {}),
        ...(vehicle.metering === "maf" ? { maf: meterOf(bay, state, HELD_METER) } : {}),
        chargeTemperature: shown(car.temperature + 20 + noise.normal(1), "°C", 1),
      };
    }),
    keyOn: {
      map: shown(car.ambient + noise.normal(200), "kPa", 0.1, "absolute"),
      charge: shown(car.ambient + wrong + noise.normal(200), "kPa", 0.1, "absolute"),
    },
    ...limpOf(car),
    egr: "shut",
    ambient: ambientOf(bay),
    warm: true,
  };
};

/** How long a full pull is driven on, s. */
const PULL = 12;
/** When limp mode sets in on a full pull, where it does, s into it. */
function limpOf(car: Bay["car"]): { readonly limp?: { readonly at: number } } {
  const engine = new PracticeEngine(engineTruth(car), car.seed);
  engine.driving = { road: { rpm: 3000 } };
  for (let at = 0.5; at <= PULL; at += 0.5) {
    engine.advance(at);
    if (engine.limp) return { limp: { at } };
  }
  return {};
}

const backPressure: Reader = (bay) => {
  const { car, noise } = bay;
  const at = (driving: Driving, more = 1) =>
    shown(Math.max(0, (stateAt(car, driving).front - car.ambient) * more + noise.normal(150)), "kPa", 0.1, "gauge");
  return {
    idle: at(IDLE),
    raised: at(held(2500)),
    snap: at({ road: { rpm: 2500, map: 0.7 * car.ambient } }),
    warm: true,
    instrument: gaugeIn("kPa", 0.2),
  };
};

const exhaustGas: Reader = (bay, setup) => {
  const { car, noise } = bay;
  const unburnt = hasTrait(car, "engine-mechanical") ? 0.025 : 0;
  const lies = hasTrait(car, "sensor-bias");
  const point = (driving: Driving) => {
    const state = stateAt(car, driving);
    // Closed loop holds λ 1 where the sensor is: false air there is answered with fuel, and a sensor that reads lean likewise.
    const rich = lies ? 0.08 + 0.1 * lies.size : state.falseAir / (1 + state.falseAir);

    const burnt = dryExhaust(1 - rich, lies ? 0 : state.falseAir, unburnt);
    const show = (value: number, sd: number, division: number) => percent(Math.max(0, value + noise.normal(sd)), division);
    return {
      co: show(burnt.co + 0.08, 0.02, 0.01),
      co2: show(burnt.co2 - 0.3, 0.1, 0.1),
      o2: show(burnt.o2 + 0.12, 0.05, 0.01),
      hc: Math.round(Math.max(0, burnt.hc + 30 + noise.normal(6))),
      ecuLambda: percent(1 + noise.normal(0.004), 0.001),
    };
  };
  return {
    fuel: burntFuel(car.context.vehicle),
    idle: point(IDLE),
    raised: point(held(2500)),
    loop: "closed",
    probe: chosen(setup, "probe", "deep"),
    zeroed: true,
    warm: true,
  };
};

/** What an EGR valve passes when it is told to open, m for each 1.6 L. */
const EGR_OPENS = 5.2e-3;
const egr: Reader = (bay, setup) => {
  const { car } = bay;
  const place = placeOf(setup);
  const dead = [
    ...faultsThere(bay, place, "egr-blocked", "circuit-dead"),
    ...car.faults.filter((f) => ["egr-pipe", "egr-diaphragm", "egr-solenoid"].includes(f.cause.joint ?? "")),
  ];
  const leaks = faultsThere(bay, place, "inside-leak")[0];
  const truth = engineTruth(car);
  const opened = EGR_OPENS * Math.sqrt(truth.displacement / 1.6e-3) * (truth.diesel ? 3.2 : 1);
  const backflow = dead.length > 0 ? (truth.backflow ?? 0) : Math.hypot(truth.backflow ?? 0, opened);
  const read = (state: OperatingState) => ({
    rpm: rpmOf(bay, state),
    ...(car.context.vehicle.metering === "maf" ? { maf: meterOf(bay, state) } : {}),
    map: mapOf(bay, state),
  });
  const cooler = hasTrait(car, "egr-cooler-leak");
  return {
    joint: place,
    shut: read(stateAt(car, held(1500))),
    open: read(stateAt(car, held(1500), { backflow })),
    seat: leaks ? "passes" : "holds",
    watched: "pipe",
    cooler: !car.context.vehicle.fitted.includes("egr-cooler") ? "none" : cooler ? "loses" : "holds",
    warm: true,
  };
};

/** Sound filter's pressure difference at 3000 1/min without load, Pa, and what soot makes of it. */
const FILTER = 2800;
const filter: Reader = (bay) => {
  const { car, noise } = bay;
  const pipe = hasTrait(car, "filter-pipe");
  const loaded = hasTrait(car, "filter-loaded");
  const broken = hasTrait(car, "filter-broken");
  const lies = hasTrait(car, "filter-sensor");
  const factor = loaded ? 3.2 + 3 * loaded.size : 1;
  const offset = lies ? 500 + 900 * lies.size : 0;
  const flowAt = (driving: Driving, kelvin: number) => (stateAt(car, driving).meter * R_AIR * kelvin) / car.ambient;
  const most = flowAt(held(3000), 473);
  const at = (driving: Driving, kelvin: number) => {
    // Viscosity grows with temperature about as its 0.7th power.
    const share = (flowAt(driving, kelvin) / most) * (kelvin / 473) ** 0.7;
    const real = FILTER * factor * share * (0.85 + 0.15 * share);
    const reaches = broken || pipe ? 0.03 : 1;
    const state = stateAt(car, driving);
    return {
      rpm: rpmOf(bay, state),
      pressure: shown(Math.max(0, real * reaches) + offset + noise.normal(25), "hPa", 0.5, "gauge"),
      ...(car.context.vehicle.metering === "maf" ? { maf: meterOf(bay, state) } : {}),
      exhaustTemperature: shown(kelvin + noise.normal(4), "°C", 1),
    };
  };
  const seen =
    pipe && showsTo(car, pipe, "eye") ? (pipe.cause.joint === "filter-pipe-front" ? "front-bad" : "rear-bad") : "sound";
  return {
    keyOn: shown(offset + noise.normal(25), "hPa", 0.5, "gauge"),
    idle: at(IDLE, 395),
    held: at(held(3000), 473),
    division: { value: 0.5, unit: "hPa", kind: "gauge" },
    egr: "shut",
    pipes: seen,
    warm: true,
  };
};

/** Air that the pump makes, kg/s; what soap shows and what the oxygen sensor needs of it at idle. */
const PUMP = 4.5e-3;
const LEAN = 0.1;
const secondaryAir: Reader = (bay, setup) => {
  const { car, noise } = bay;
  const place = placeOf(setup);
  const dead = car.faults.some((f) => f.cause.trait === "air-pump-dead" || f.cause.id === "pump-circuit");
  const leak = hasTrait(car, "air-leak");
  const openedBy = chosen<"command" | "hand-vacuum">(
    setup,
    "openedBy",
    car.context.vehicle.airValveWorked === "electric" ? "command" : "hand-vacuum",
  );
  const shut = faultsThere(bay, place, "air-valve-stuck", "air-ports").length > 0;
  const arrives = shut ? 0 : airArrives(car, openedBy);
  const idle = stateAt(car, IDLE);
  const valves = car.context.layout.joints.some((j) => j.id === "air-valve-2") ? 2 : 1;
  const share = (PUMP * arrives) / valves / idle.air;
  const lean = share > LEAN;
  return {
    joint: place,
    runBy: chosen(setup, "runBy", "scan-tool"),
    pumped: !dead,
    window: 30,
    rearmed: chosen(setup, "rearmed", true),
    engineRunning: chosen(setup, "engineRunning", true),
    openedBy,
    oxygen: lean ? "lean" : "no-change",
    watched: lean ? percent(2 + noise.uniform(0, 2)) : 15,
    soaped: true,
    bubbles: leak?.cause.joint && !dead && showsTo(car, leak, "smoke") ? [leak.cause.joint] : [],
    whenShut: faultsThere(bay, place, "air-valve-back").length > 0 ? "pulses" : "quiet",
  };
};

/** Checks with the engine running. */
export const RUNNING: Partial<Record<CheckId, Reader>> = {
  trims,
  probe,
  vacuum,
  airflow,
  crankcase,
  pinch,
  boost,
  "back-pressure": backPressure,
  "exhaust-gas": exhaustGas,
  egr,
  filter,
  "secondary-air": secondaryAir,
};
