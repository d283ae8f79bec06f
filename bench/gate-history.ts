import { v4 } from "uuid";
import { type CheckContext, type CheckId, contextOf, judgeCheck } from "@/core/checks";
import { type At, type Bodies, bodyVersion, type EntryKind, type JournalEntry } from "@/core/journal";
import type { Noise } from "@/core/maths/random";
import { DEFAULT_SHOP } from "@/core/shop/settings";
import { usualSetup, vehicleFacts } from "@/core/vehicle";
import { boostLog, CARS, type Car, capTest, drawn, type Place, type RunAsked, smoke, survey, vapourRun } from "./gate-readings";

export const MINUTE = 60_000;
const START = Date.parse("2026-03-02T06:00:00Z");
/** A device that records: it may be offline, and its clock may be wrong. */
export interface Device {
  readonly name: string;
  /** Its clock against the world's, ms */
  readonly offset: number;
  online: boolean;
  count: number;
  seen: number;
  outbox: JournalEntry[];
}

/** One job as the world sees it: what is faulty, what is recorded where, and when it reaches the server. */
export class History {
  readonly journal: JournalEntry[] = [];
  readonly faulty = new Set<Place>();
  /** Joints that are off or plugged, by the entry that lists them */
  readonly off = new Map<string, string>();
  readonly findings = new Map<string, string>();
  readonly repairs: { id: string; finding: string | undefined; joint: string; cured: Place[]; what: string; undone: boolean }[] =
    [];
  readonly touched = new Set<string>();
  bypass: { id: string; places: Place[] } | undefined;
  swap: { id: string; places: Place[] } | undefined;
  cleared = false;
  driven = false;
  /** Some reading showed a fault before the end */
  shown = false;
  now = START;
  /** As it is described now */
  context: CheckContext;
  /** Written down on paper, and typed in afterwards with its times */
  readonly paper: (() => void)[] = [];
  readonly a: Device;
  readonly b: Device;

  constructor(
    readonly car: Car,
    readonly sd: number,
    readonly dice: Noise,
    readonly noise: Noise,
    readonly desk: boolean,
    early: boolean,
  ) {
    this.context = contextOf(early && car.early ? vehicleFacts(car.early) : car.facts, DEFAULT_SHOP);
    const wrong = () => (dice.uniform() < 0.1 ? Math.round(dice.uniform(-150, 150)) * MINUTE : 0);
    const device = (name: string): Device => ({ name, offset: wrong(), online: true, count: 0, seen: 0, outbox: [] });
    this.a = device("tablet");
    this.b = device("phone");
  }

  /** Faults that act on the car as it stands. */
  acting = () => {
    const masked = new Set(this.bypass?.places ?? []);
    return [...this.faulty].filter((p) => !masked.has(p));
  };

  flush(device: Device): void {
    for (const entry of device.outbox) {
      const clamp = (iso: string) => (Date.parse(iso) > this.now + 2 * MINUTE ? new Date(this.now).toISOString() : iso);
      const at: At = typeof entry.at === "string" ? clamp(entry.at) : { from: clamp(entry.at.from), to: clamp(entry.at.to) };
      const clamped = JSON.stringify(at) !== JSON.stringify(entry.at);
      this.journal.push({
        ...entry,
        at,
        seq: this.journal.length + 1,
        recordedAt: new Date(this.now).toISOString(),
        ...(clamped ? { clampedFrom: entry.at } : {}),
      });
    }
    device.outbox = [];
    device.seen = this.journal.length;
  }

  write<K extends EntryKind>(
    device: Device,
    kind: K,
    body: Bodies[K],
    from = this.now,
    to = this.now,
    corrects?: string,
  ): string {
    const id = v4();
    if (this.desk) {
      this.paper.push(() => this.enter(this.a, id, kind, body, from, to, corrects));
      return id;
    }
    this.enter(device, id, kind, body, from, to, corrects);
    return id;
  }

  /** Everything that stands on paper is typed in at the desk, in the order in which it was done. */
  typeIn(): void {
    this.now += 30 * MINUTE;
    for (const enter of this.paper.splice(0)) enter();
    this.flush(this.a);
  }

  private enter<K extends EntryKind>(
    device: Device,
    id: string,
    kind: K,
    body: Bodies[K],
    from: number,
    to: number,
    corrects?: string,
  ): void {
    const iso = (t: number) => new Date(t + (this.desk ? 0 : device.offset)).toISOString();
    if (device.online && this.dice.uniform() < 0.8) this.flush(device);
    device.outbox.push({
      id,
      jobId: "job",
      kind,
      v: bodyVersion(kind),
      at: from === to ? iso(from) : { from: iso(from), to: iso(to) },
      by: device.name,
      device: device.name,
      deviceSeq: ++device.count,
      seenSeq: device.seen,
      body,
      seq: 0,
      recordedAt: "",
      ...(corrects ? { corrects } : {}),
    });
    if (device.online) this.flush(device);
  }

  /** The vehicle's facts completed: what was assumed of it is known. */
  complete(device: Device): void {
    this.write(device, "vehicle", this.car.facts);
    this.context = contextOf(this.car.facts, DEFAULT_SHOP);
  }

  boost(device: Device, most: number, plain = false): object {
    const acting = this.acting();
    const key = `boost ${acting.map((p) => p.joint).join()} ${most}`;
    const record = drawn(key, this.sd, this.noise, (noise) => boostLog(this.car, acting, most, this.sd, noise));
    this.check(device, "boost", record, plain);
    return record;
  }

  /** A check is taken now; it may be written down late, or at a wrong time that is corrected afterwards. */
  check(device: Device, check: CheckId, record: object, plain = false): string {
    const from = this.now;
    this.now += 6 * MINUTE;
    const to = this.now;
    if (!this.swap) this.shown ||= judgeCheck(check, record, this.context).outcome === "fail";
    const slip = plain ? 1 : this.dice.uniform();
    if (slip < 0.08) this.now += Math.round(this.dice.uniform(5, 60)) * MINUTE;
    if (slip > 0.95 && slip < 1) {
      const off = Math.round(this.dice.uniform(-60, 60)) * MINUTE;
      const id = this.write(device, "check", { check, record }, from + off, to + off);
      this.write(device, "check", { check, record }, from, to, id);
      return id;
    }
    return this.write(device, "check", { check, record }, from, to);
  }

  survey(device: Device, points: readonly number[], plain = false): object {
    const acting = this.acting();
    const key = `trims ${CARS.indexOf(this.car)} ${acting.map((p) => p.joint).join()} ${points.join()}`;
    const record = drawn(key, this.sd, this.noise, (noise) => survey(this.car, acting, points, 1.2 * this.sd, noise));
    this.check(device, "trims", record, plain);
    return record;
  }

  smoke(device: Device, asked: RunAsked, plain = false): object {
    const acting = this.acting();
    const { layout } = this.context;
    const key = `smoke ${CARS.indexOf(this.car)} ${layout.joints.length} ${acting.map((p) => p.joint).join()} ${JSON.stringify(asked)}`;
    const vapour = this.car.circuit === "evap";
    const record = drawn(key, this.sd, this.noise, (noise) => {
      const run = smoke(acting, asked, this.sd, noise, this.context);
      return vapour ? vapourRun(run) : run;
    });
    // What its set-up plugs is listed with what it takes off, by those who list it.
    const listed = this.dice.uniform() < 0.5 ? usualSetup(layout, asked.entry).blocked : [];
    const items = [asked.entry, ...listed].map((joint) => this.takeOff(device, joint));
    this.check(device, vapour ? "evap-smoke" : "smoke", record, plain);
    for (const item of items) this.putBack(device, item);
    return record;
  }

  cap(device: Device, plain = false): object {
    const leaks = this.acting().some((p) => p.joint === "filler-cap");
    const record = drawn(`cap ${leaks}`, this.sd, this.noise, (noise) => capTest(leaks, this.sd, noise));
    this.check(device, "cap", record, plain);
    return record;
  }

  takeOff(device: Device, joint: string): string {
    const id = this.write(device, "displaced", { what: `${joint} off`, joint });
    this.off.set(id, joint);
    this.touched.add(joint);
    this.now += MINUTE;
    return id;
  }
  putBack(device: Device, item: string): void {
    if (!this.off.delete(item)) return;
    this.write(device, "restored", { item, ...(this.dice.uniform() < 0.9 ? { seated: true as const } : {}) });
    this.now += MINUTE;
  }

  repair(device: Device, finding: string | undefined, joint: string, named: boolean): void {
    const from = this.now;
    this.now += Math.round(this.dice.uniform(10, 90)) * MINUTE;
    const cured = [...this.faulty].filter((p) => p.joint === joint);
    for (const p of cured) this.faulty.delete(p);
    const what = `${joint} renewed ${this.repairs.length}`;
    const id = this.write(
      device,
      "repair",
      {
        ...(finding ? { finding } : {}),
        what,
        permanence: "permanent",
        places: [named ? joint : "anywhere"],
        labourMinutes: 30,
        parts: [],
        otherChanges: [],
      },
      from,
      this.now,
    );
    this.repairs.push({ id, finding, joint: named ? joint : "anywhere", cured, what, undone: false });
    if (finding) this.findings.delete(finding);
  }
}

export const SHOP = { ...DEFAULT_SHOP, name: "Ferrowick Slip Garage" };
