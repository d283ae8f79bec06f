import { randomInt } from "node:crypto";
import type { LiveCall, LiveRun } from "@/core/live";
import { now } from "./clock";

/** Live runs on the air right now: kept in memory alone, since the run itself is a draft on its own device. */
interface Live {
  run: LiveRun;
  at: number;
  calls: { readonly number: number; readonly call: LiveCall; readonly at: number }[];
}
interface Store {
  readonly runs: Map<string, Live>;
  /** Code shown on a first device → until when it lets a second one in, ms */
  readonly codes: Map<string, number>;
}
const shared = globalThis as { pelotaLive?: Store };
const store = (): Store => {
  shared.pelotaLive ??= { runs: new Map(), codes: new Map() };
  return shared.pelotaLive;
};

/** A run nobody has heard of for so long is over, ms. */
const SILENT = 20_000;
const CODE_LASTS = 10 * 60_000;
/** Codes that are open at once */
const OPEN_CODES = 10;
const KEPT_CALLS = 20;

/** The first device's word on its run; the answer is what was called to it since. */
export function publish(jobId: string, run: LiveRun, after: number): Live["calls"] {
  const { runs } = store();
  // A run that went silent is over: what nobody watches is not kept.
  for (const [id, live] of runs) if (now() - live.at > SILENT) runs.delete(id);
  const before = runs.get(jobId);
  const calls = before?.calls ?? [];
  runs.set(jobId, { run, at: now(), calls });
  return calls.filter((c) => c.number > after);
}

/** The run as a second device sees it; undefined when none is on the air. */
export function watch(jobId: string): { readonly run: LiveRun; readonly age: number } | undefined {
  const live = store().runs.get(jobId);
  if (!live || now() - live.at > SILENT) return undefined;
  return { run: live.run, age: now() - live.at };
}

/** A call from a second device to the first; false when no run is on the air. */
export function callOut(jobId: string, call: LiveCall): boolean {
  const live = store().runs.get(jobId);
  if (!live || now() - live.at > SILENT) return false;
  const number = (live.calls.at(-1)?.number ?? 0) + 1;
  live.calls = [...live.calls, { number, call, at: now() }].slice(-KEPT_CALLS);
  return true;
}

/** A six-digit code that lets one more device in, once, for ten minutes. */
export function newCode(): { readonly code: string; readonly seconds: number } {
  const { codes } = store();
  for (const [code, until] of codes) if (until < now()) codes.delete(code);
  // Each open one is a guess more at the door: the oldest goes.
  while (codes.size >= OPEN_CODES) codes.delete(codes.keys().next().value as string);
  const code = String(randomInt(0, 1e6)).padStart(6, "0");
  codes.set(code, now() + CODE_LASTS);
  return { code, seconds: CODE_LASTS / 1000 };
}

/** Takes a code: true once, within its time. */
export function takeCode(code: string): boolean {
  const { codes } = store();
  const until = codes.get(code);
  codes.delete(code);
  return until !== undefined && until >= now();
}
