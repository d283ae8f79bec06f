import { v5 as namedUuid } from "uuid";
import type { SmokeRun } from "../checks/smoke";
import type { TrimSurvey } from "../checks/trims";
import { NATURAL, smokeRun } from "../core.fixture";
import type { Role } from "../people";
import { DEFAULT_SHOP, type Shop } from "../shop/settings";
import type { Bodies, EntryKind } from "./entries";
import type { At, JournalEntry } from "./envelope";
import { foldJob } from "./fold";
import type { JobState } from "./state";

const NAMES = "6ba7b811-9dad-11d1-80b4-00c04fd430c8";
export const JOB = namedUuid("job", NAMES);
export const SHOP: Shop = { ...DEFAULT_SHOP, name: "Ferrowick Slip Garage" };
const START = Date.parse("2026-03-02T08:00:00Z");
export const minute = (m: number) => new Date(START + m * 60_000).toISOString();
export const NOW = START + 30 * 24 * 3600_000;

interface More {
  id?: string;
  at?: At;
  device?: string;
  seenSeq?: number;
  corrects?: string;
  by?: string;
  role?: Role;
}

/** Writes a journal line by line, a minute apart and a drive as long as it took, on one device that sees all it wrote. */
export class Writer {
  readonly entries: JournalEntry[] = [];
  /** Minutes that were driven so far */
  #driven = 0;

  add<K extends EntryKind>(kind: K, body: Bodies[K], more: More = {}): string {
    const seq = this.entries.length + 1;
    if (kind === "drive") this.#driven += (body as Bodies["drive"]).minutes;
    const now = minute(seq + this.#driven);
    const id = more.id ?? namedUuid(`${kind} ${seq}`, NAMES);
    this.entries.push({
      id,
      jobId: JOB,
      kind,
      v: 1,
      at: more.at ?? now,
      by: more.by ?? "Maren Oake",
      device: more.device ?? "tablet",
      deviceSeq: seq,
      seenSeq: more.seenSeq ?? seq - 1,
      body,
      seq,
      recordedAt: now,
      ...(more.corrects ? { corrects: more.corrects } : {}),
      ...(more.role ? { role: more.role } : {}),
    });
    return id;
  }

  state(now = NOW): JobState {
    return foldJob(this.entries, SHOP, now);
  }

  trims(totals: readonly number[], more: More = {}): string {
    return this.add("check", { check: "trims", record: trimSurvey(totals) }, more);
  }
  smoke(change: Partial<SmokeRun> = {}, flow = 4.5, more: More = {}): string {
    return this.add("check", { check: "smoke", record: smokeRun(flow, change) }, more);
  }
}

const FLOWS = [2.6, 5.2, 9.4, 20, 55];
const PRESSURES = [33, 30, 30, 62, 94];

export const trimSurvey = (totals: readonly number[]): TrimSurvey => ({
  source: { kind: "typed" },
  ambient: { value: 1006, unit: "hPa", kind: "absolute" },
  intakeTemperature: { value: 17, unit: "°C" },
  points: totals.map((long, i) => ({
    rpm: 700 + 500 * i,
    maf: { value: FLOWS[i] as number, unit: "g/s" },
    map: { value: PRESSURES[i] as number, unit: "kPa", kind: "absolute" },
    banks: [{ short: 0, long }],
  })),
});
export const LEAN = [17, 8.5, 4.7, 1.8, 0.2];
export const GOOD = [0.8, 0.5, -0.4, 0.3, 0];

/** A job taken from the door to a confirmed finding; returns the writer and the finding's id. */
export function found(): { job: Writer; finding: string } {
  const job = new Writer();
  job.add("opened", { number: 7 });
  job.add("vehicle", NATURAL);
  job.add("story", { complaint: "Rough idle", symptoms: ["rough-idle"], verified: "seen" });
  job.add("conditions", {
    ambient: { value: 1006, unit: "hPa", kind: "absolute" },
    bayTemperature: { value: 17, unit: "°C" },
  });
  job.add("codes", { codes: [{ code: "P0171", status: "current" }] });
  job.trims(LEAN);
  job.smoke({ seen: [{ joint: "pcv-hose", at: 40 }], noSmokeOutside: false }, 9);
  const finding = job.add("finding", { joint: "pcv-hose", what: "PCV hose split", evidence: [], confirmed: true });
  return { job, finding };
}

export const repairBody = (finding: string, change: Partial<Bodies["repair"]> = {}): Bodies["repair"] => ({
  finding,
  what: "PCV hose renewed",
  permanence: "permanent",
  labourMinutes: 30,
  parts: [{ name: "PCV hose", count: 1 }],
  otherChanges: [],
  ...change,
});

/** Driven after the codes were cleared, and every module read again: quiet. */
export function driven(job: Writer): void {
  job.add("drive", { minutes: 25, coldStart: true });
  job.add("codes", { codes: [] });
}

/** The same job repaired and proved by everything it owes. */
export function proved(change: Partial<Bodies["repair"]> = {}): { job: Writer; repair: string } {
  const { job, finding } = found();
  const repair = job.add("repair", repairBody(finding, change));
  job.trims(GOOD);
  job.smoke();
  job.add("codes-cleared", {});
  job.add("complaint-tried", { how: "Ten minutes of idle", result: "gone" });
  driven(job);
  return { job, repair };
}
