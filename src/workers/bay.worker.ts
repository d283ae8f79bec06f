import { expose, proxy } from "comlink";
import { CHECKS, type CheckId } from "@/core/checks";
import { smokeSeen } from "@/core/checks/smoke/simulate";
import type { Every, LiveRow, SmokeRow } from "@/core/devices/device";
import { ballShows } from "@/core/devices/instrument-fault";
import { standInEngine } from "@/core/devices/stand-in-engine";
import { standInSmoke } from "@/core/devices/stand-in-smoke";
import type { Family } from "@/core/faults";
import type { Bodies, JournalEntry } from "@/core/journal";
import { seededNoise } from "@/core/maths/random";
import { ANSWERS, type Answered } from "@/core/practice/answers";
import { bayAhead } from "@/core/practice/bay-entries";
import { engineTruth, faultsAt, holesOf } from "@/core/practice/car";
import { type PracticeCase, playableCauses, practiceCase } from "@/core/practice/case";
import { type CaseSpec, caseCode } from "@/core/practice/code";
import { type Debrief, debriefOf } from "@/core/practice/debrief";
import { readCheck, showsTo } from "@/core/practice/readers";
import { SmokeFill, type SmokePush } from "@/core/practice/smoke-fill";
import { vehicleFor } from "@/core/practice/vehicles";
import { type BayStep, type World, worldOf } from "@/core/practice/world";
import type { Shop } from "@/core/shop/settings";
import type { FillSetup, VehicleRecord } from "@/core/vehicle";

const cases = new Map<string, PracticeCase>();
function caseOfCode(code: string): PracticeCase {
  const known = cases.get(code) ?? practiceCase(code);
  cases.set(code, known);
  return known;
}

/** The part of the case that everybody in the bay may know of it. */
export interface BayNow {
  readonly minutes: number;
  readonly money: number;
  readonly hints: number;
  readonly engine: World["engine"];
  readonly light: World["light"];
  readonly last: BayStep | undefined;
}

/** Frames a second that the car is moved on by while it is read live. */
const FRAMES = 60;
const every: Every = (ms, tick) => {
  const timer = setInterval(tick, ms);
  return () => clearInterval(timer);
};

const DEVICE = { kind: "device", device: "Practice bay", simulated: true } as const;

/** The practice car, off the main thread: nothing of what is hidden in it is sent over but what was read. */
const api = {
  /** Complaint and codes a car comes in with */
  arrive: (code: string): { code: string; facts: VehicleRecord; story: Bodies["story"] } => {
    const { code: written, facts, story } = caseOfCode(code);
    return { code: written, facts, story };
  },
  /** The car that a case is put together on, and what can be wrong with it */
  compose: (family: Family, vehicle: number): { facts: VehicleRecord; causes: readonly string[] } => {
    const facts = vehicleFor(family, seededNoise(vehicle));
    return { facts, causes: playableCauses(facts, family).map((c) => c.name) };
  },
  code: (spec: CaseSpec): string => caseCode(spec),
  now: (code: string, entries: readonly JournalEntry[]): BayNow => {
    const { minutes, money, hints, engine, light, steps } = worldOf(caseOfCode(code), entries);
    return { minutes, money, hints, engine, light, last: steps.at(-1) };
  },
  /** Reads a check off the car as it stands; undefined where it has nothing to say of a car. */
  read: (code: string, entries: readonly JournalEntry[], check: CheckId, setup: object, turn: number): object | undefined => {
    const given = caseOfCode(code);
    const noise = seededNoise(given.car.seed + 7919 * entries.length + 104_729 * turn);
    const { car, light, instruments } = worldOf(given, entries);
    const record = readCheck(check, { car, noise, light, instruments }, setup as Record<string, unknown>);
    return record && CHECKS[check].fields.schema.describe().fields.source ? { ...record, source: DEVICE } : record;
  },
  answer: (code: string, entries: readonly JournalEntry[], of: Answered): object => {
    const given = caseOfCode(code);
    const now = new Date(Date.now() + bayAhead(entries, Date.now())).toISOString();
    return ANSWERS[of](worldOf(given, entries), given, now);
  },
  /** The car's engine with a scan tool on it, moved on 60 times a second in this thread; what stops it, and the foot */
  engine: (code: string, entries: readonly JournalEntry[], pace: number, row: (row: LiveRow) => void) => {
    const { car, engine } = worldOf(caseOfCode(code), entries);
    const truth = { ...engineTruth(car), ...(engine === "cold" ? { coolant: car.temperature } : {}) };
    const drinks = (joint: string) => faultsAt(car, joint).some((fault) => showsTo(car, fault, "probe"));
    const tool = standInEngine(truth, car.seed + entries.length, every, pace, 1000 / FRAMES, drinks);
    const stop = tool.start({ row, ended: () => {} });
    return proxy({ stop, hold: (rpm: number | undefined) => tool.hold(rpm), tap: (joint: string) => tool.tap(joint) });
  },
  /** Ball and gauge of a machine on a fill of the car, likewise, and what is seen by who looks for smoke meanwhile */
  smoke: (code: string, entries: readonly JournalEntry[], fill: FillSetup, push: SmokePush, row: (row: SmokeRow) => void) => {
    const { car, instruments, light } = worldOf(caseOfCode(code), entries);
    const network = new SmokeFill(car.context.layout, fill, push, holesOf(car), car, car.seed + entries.length);
    let pressure = 0;
    const stop = standInSmoke(network, every, FRAMES).start((read) => {
      ({ pressure } = read);
      row({ ...read, flow: ballShows(read.flow, push.maxFlow, instruments["smoke-machine"]) });
    });
    return proxy({ stop, look: () => smokeSeen({ car, light, instruments }, fill, pressure) });
  },
  debrief: (code: string, entries: readonly JournalEntry[], shop: Shop): Debrief => debriefOf(caseOfCode(code), entries, shop),
};
export type BayWorker = typeof api;
expose(api);
