/**
 * Random histories on cars whose faults are known and stay until they are repaired, told by a technician who reports what
 * the instruments said. It knows the physics, the records and what a technician does; it knows nothing of how gates judge.
 */
import { type CheckId, judgeCheck } from "@/core/checks";
import { foldJob } from "@/core/journal";
import { seededNoise } from "@/core/maths/random";
import { type Device, History, MINUTE, SHOP } from "./gate-history";
import { CARS, type Car, FULL_BOOST, type Place, probe } from "./gate-readings";

type Act = (h: History, device: Device) => void;
const anyOf = <T>({ dice }: History, list: readonly T[]): T => list[Math.floor(dice.uniform(0, list.length))] as T;

const measureWhole: Act = (h, device) => {
  if (h.car.circuit === "evap") h.cap(device);
  else h.survey(device, anyOf(h, [[0, 1, 2, 3, 4], [0, 1, 2, 3, 4], [0, 1, 2], [3, 4], [2, 3, 4], [0]]));
};

const smokeIt: Act = (h, device) => {
  const { dice, car } = h;
  const shown = dice.uniform() < 0.65;
  const section = car.circuit !== "evap" && dice.uniform() < 0.2 ? { section: "pcv-valve" } : {};
  h.smoke(device, { entry: anyOf(h, car.entries), shown, timedOut: dice.uniform() < 0.12, ...section });
};

const probeIt: Act = (h, device) => {
  const spots = h.car.places.filter(() => h.dice.uniform() < 0.5).map((p) => p.joint);
  if (spots.length > 0) h.check(device, "probe", probe(spots, h.acting()));
};

const find: Act = (h, device) => {
  const { joint } = anyOf(h, h.car.places);
  const real = [...h.faulty].some((p) => p.joint === joint);
  if (!real && h.dice.uniform() >= 0.3) return;
  const finding = { joint, what: `${joint} looks bad`, evidence: [], confirmed: false, failed: { why: "age" } } as const;
  h.findings.set(h.write(device, "finding", finding), joint);
};

const mend: Act = (h, device) => {
  const open = [...h.findings];
  const [finding, joint] = open.length > 0 && h.dice.uniform() < 0.7 ? anyOf(h, open) : [undefined, anyOf(h, h.car.places).joint];
  h.repair(device, finding, joint, h.dice.uniform() < 0.7);
};

const undo: Act = (h, device) => {
  const done = h.repairs.findLast((r) => !r.undone);
  if (!done) return;
  done.undone = true;
  for (const p of done.cured) h.faulty.add(p);
  h.write(device, "undone", { repair: done.id });
};

const bypass: Act = (h, device) => {
  if (h.bypass) {
    h.write(device, "undone", { repair: h.bypass.id });
    h.bypass = undefined;
    return;
  }
  const places = [...h.faulty].filter(() => h.dice.uniform() < 0.7);
  const id = h.write(device, "repair", {
    what: "branch blanked",
    permanence: "bypass",
    places: places.length > 0 ? places.map((p) => p.joint) : ["anywhere"],
    labourMinutes: 5,
    parts: [],
    otherChanges: [],
  });
  h.bypass = { id, places };
};

const swap: Act = (h, device) => {
  const done = h.repairs.findLast((r) => !r.undone && r.cured.length > 0);
  if (h.swap) {
    for (const p of h.swap.places) h.faulty.delete(p);
    h.write(device, "restored", { item: h.swap.id });
    h.swap = undefined;
  } else if (done) {
    const id = h.write(device, "displaced", { what: "old part back in", swappedBack: done.what });
    for (const p of done.cured) h.faulty.add(p);
    h.swap = { id, places: done.cured };
  }
};

const displace: Act = (h, device) => {
  const item = h.takeOff(device, anyOf(h, h.car.places).joint);
  if (h.dice.uniform() < 0.7) h.putBack(device, item);
};

const clear: Act = (h, device) => {
  h.write(device, "codes-cleared", {});
  h.cleared = true;
  h.driven = false;
};

const takeOut: Act = (h, device) => {
  const from = h.now;
  h.now += 25 * MINUTE;
  const load = anyOf(h, [undefined, "town", "hills"] as const);
  h.write(device, "drive", { minutes: 25, ...(load ? { load } : {}) }, from, h.now);
  h.driven = true;
};

const logBoost: Act = (h, device) => {
  h.boost(device, anyOf(h, [0.45, 0.7, 1, 1]) * FULL_BOOST);
};

/** All that a technician does, each with the share of things up to which it is that one; what does not suit a car gives way to the next. */
const ACTS: readonly (readonly [upTo: number, act: Act, suits?: (car: Car) => boolean])[] = [
  [0.38, logBoost, (car) => car.circuit === "charge"],
  [0.16, measureWhole],
  [0.38, smokeIt],
  [0.44, probeIt, (car) => car.circuit === "intake"],
  [0.52, find],
  [0.66, mend],
  [0.7, undo],
  [0.75, bypass],
  [0.8, swap],
  [0.84, displace],
  [0.88, clear],
  [0.92, takeOut],
  [0.96, readCodes],
  [1, tryComplaint],
];

/** One random thing that a technician does. */
function step(h: History): void {
  const { dice, car } = h;
  const device = dice.uniform() < 0.7 ? h.a : h.b;
  h.now += Math.round(dice.uniform(1, 30)) * MINUTE;
  if (dice.uniform() < 0.12) device.online = !device.online;
  const roll = dice.uniform();
  if (car.early && h.context.vehicle.unknown?.length && dice.uniform() < 0.1) h.complete(device);
  const [, act] = ACTS.find(([upTo, , suits]) => roll < upTo && (suits?.(car) ?? true)) ?? [1, tryComplaint];
  act(h, device);
}

/** A standing fault sets its code on a drive half of the time: neither light nor complaint saves a gate that is asleep. */
function readCodes(h: History, device: Device): void {
  const back = h.acting().length > 0 && (!h.cleared || (h.driven && h.dice.uniform() < 0.5));
  h.write(device, "codes", { codes: back ? h.car.codes : [] });
}
function tryComplaint(h: History, device: Device): void {
  const remains = h.acting().length > 0 && h.dice.uniform() < 0.5;
  h.write(device, "complaint-tried", { how: "as the customer says", result: remains ? "remains" : "gone" });
}

/**
 * The end of a thorough technician: all back on, all repaired that was found, everything looked at once more. One who is not
 * goes through all of it too, and asks less of the car than it failed at.
 */
function checkFully(h: History, easy: "boost" | "survey" | "drive" | undefined): void {
  const { a, b, car } = h;
  for (const device of [a, b]) {
    device.online = true;
    h.flush(device);
  }
  h.now += 10 * MINUTE;
  if (h.context.vehicle.unknown?.length) h.complete(a);
  if (h.swap) {
    for (const p of h.swap.places) h.faulty.delete(p);
    h.write(a, "restored", { item: h.swap.id });
    h.swap = undefined;
  }
  if (h.bypass) {
    h.write(a, "undone", { repair: h.bypass.id });
    h.bypass = undefined;
  }
  for (const item of [...h.off.keys()]) h.putBack(a, item);
  for (const [finding, joint] of [...h.findings]) h.repair(a, finding, joint, true);
  const cure = h.dice.uniform() < 0.6;
  if (cure) for (const p of [...h.faulty]) h.repair(a, undefined, p.joint, true);
  if (h.repairs.every((r) => r.undone)) h.repair(a, undefined, "oil-cap", true);
  // A repair that was undone leaves its finding open: repair that too.
  const undone = new Set(h.repairs.filter((r) => r.undone).map((r) => r.id));
  for (const { finding, joint } of h.repairs.filter((r) => undone.has(r.id))) if (finding) h.repair(a, finding, joint, true);
  h.now += 200 * MINUTE;
  // A reading that is not sure is taken once more.
  const twice = (check: CheckId, take: () => object) => {
    const { outcome } = judgeCheck(check, take(), h.context);
    if (outcome !== "pass") take();
  };
  const runs = () => {
    for (const entry of car.entries)
      twice(car.circuit === "evap" ? "evap-smoke" : "smoke", () => h.smoke(a, { entry, shown: true, timedOut: false }, true));
  };
  runs();
  if (car.circuit === "charge") twice("boost", () => h.boost(a, (easy === "boost" ? 0.45 : 1) * FULL_BOOST, true));
  else if (car.circuit === "evap") twice("cap", () => h.cap(a, true));
  else twice("trims", () => h.survey(a, easy === "survey" ? [3, 4] : [0, 1, 2, 3, 4], true));
  const items = [...h.touched].map((id) => ({ id, state: "fine" as const }));
  if (items.length > 0) h.check(a, "look", { items }, true);
  h.write(a, "codes-cleared", {});
  h.cleared = true;
  const from = h.now;
  h.now += 30 * MINUTE;
  h.write(
    a,
    "drive",
    { minutes: 30, ...(car.symptoms ? { load: easy === "drive" ? ("town" as const) : ("hills" as const) } : {}) },
    from,
    h.now,
  );
  h.driven = true;
  h.now += MINUTE;
  readCodes(h, a);
  tryComplaint(h, a);
  if (car.circuit === "evap") {
    h.now += 12 * 60 * MINUTE;
    const failed = h.acting().length > 0 && h.dice.uniform() < 0.5;
    h.write(a, "monitor", { result: failed ? "failed" : "passed", readBy: "readiness" });
  }
}

export interface GateTrial {
  readonly histories: number;
  readonly standing: number;
  /** Fault stands and nothing blocks closing, without noise in the readings and with it */
  readonly letThroughByLogic: number;
  readonly letThroughByNoise: number;
  readonly repaired: number;
  readonly refused: number;
  /** Seeds of histories that closed on a standing fault without noise, and what was refused */
  readonly failing: readonly number[];
  readonly reasons: Readonly<Record<string, number>>;
}

/** Plays one history; `full` tells whether it ended as a thorough technician ends. */
function playHistory(seed: number, sd: number): { history: History; full: boolean } {
  const dice = seededNoise(seed);
  const car = CARS[seed % CARS.length] as Car;
  const early = seed % 3 === 0;
  const h = new History(car, sd, dice, seededNoise(seed + 77), dice.uniform() < 0.5, early);
  const first = car.places[Math.floor(dice.uniform(0, car.places.length))] as Place;
  h.faulty.add(first);
  if (dice.uniform() < 0.35) h.faulty.add(car.places[Math.floor(dice.uniform(0, car.places.length))] as Place);
  h.write(h.a, "opened", { number: 1 });
  h.write(h.a, "vehicle", early && car.early ? car.early : car.facts);
  h.write(h.a, "story", { complaint: "Runs badly", symptoms: car.symptoms ?? [], verified: "seen" });
  if (car.codes.length > 0) h.write(h.a, "codes", { codes: car.codes });
  h.now += 5 * MINUTE;
  // Most begin with a check that shows it.
  if (dice.uniform() < 0.85) {
    if (car.circuit === "charge") h.boost(h.a, FULL_BOOST);
    else if (car.circuit === "evap") h.smoke(h.a, { entry: "service-port", shown: true, timedOut: false });
    else if (dice.uniform() < 0.5) h.survey(h.a, [0, 1, 2, 3, 4]);
    else h.smoke(h.a, { entry: "air-meter", shown: dice.uniform() < 0.5, timedOut: false });
  }
  const steps = 2 + Math.floor(dice.uniform(0, 14));
  for (let i = 0; i < steps; i++) step(h);
  const ends = dice.uniform() < 0.7;
  const full = ends && dice.uniform() < 0.8;
  const easy = full ? undefined : dice.uniform() < 0.3 ? "drive" : car.circuit === "charge" ? "boost" : "survey";
  if (ends) checkFully(h, easy);
  h.typeIn();
  for (const device of [h.a, h.b]) h.flush(device);
  return { history: h, full };
}

export function gateTrial(histories: number, seed: number): GateTrial {
  let standing = 0;
  let letThroughByLogic = 0;
  let letThroughByNoise = 0;
  let repaired = 0;
  let refused = 0;
  const failing: number[] = [];
  const reasons: Record<string, number> = {};
  for (let i = 0; i < histories; i++) {
    for (const sd of [0, 1]) {
      const { history, full } = playHistory(seed + i, sd);
      const { close } = foldJob(history.journal, SHOP, history.now + MINUTE).blocks;
      const faulty = history.faulty.size > 0 || history.bypass !== undefined;
      if (faulty) {
        if (sd === 1) standing++;
        if (close.length === 0 && sd === 0) {
          letThroughByLogic++;
          failing.push(seed + i);
        }
        if (close.length === 0 && sd === 1) letThroughByNoise++;
      } else if (full && sd === 1 && history.shown) {
        repaired++;
        if (close.length > 0) {
          refused++;
          const key = close.map((b) => b.reason.replace(/\(.*\)|:.*$/g, "")).join(" | ");
          reasons[key] = (reasons[key] ?? 0) + 1;
        }
      }
    }
  }
  return { histories, standing, letThroughByLogic, letThroughByNoise, repaired, refused, failing, reasons };
}
