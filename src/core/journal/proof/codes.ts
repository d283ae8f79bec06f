import { type CheckContext, type CodeSet, isUnder } from "../../checks";
import { similarTo } from "../../checks/trims/claims";
import { mixtureBanks, monitorOf } from "../../faults";
import { toSi } from "../../units";
import { type Bodies, type CodeRead, isOfVapour, monitorResult, setAt } from "../entries";
import { type ComesUnder, metOn } from "./complaint";
import type { Evidence } from "./evidence";
import { elapsed, isAfter, type Line, type LineOf, linesOf } from "./order";
import type { Touch } from "./touches";

/** The next step that a chased code waits for. */
export type CodeWait =
  | { readonly for: "clearing" | "drive" | "reading" }
  /** Cleared, and there again; or there now, and not before */
  | { readonly for: "cure"; readonly status: CodeRead["status"]; readonly isNew: boolean }
  /** Driven without it, and not under what it was set under */
  | { readonly for: "conditions"; readonly under: readonly ComesUnder[] }
  /** Read again in some of the modules alone that it was read in */
  | { readonly for: "modules"; readonly modules: readonly string[] }
  /** Driven for longer than there was between clearing and reading, min */
  | { readonly for: "time"; readonly said: number; readonly between: number };

/** A code that was chased once: it stays owed, though it was cleared. */
export interface ChasedCode extends CodeSet {
  /** Its own monitor ran since the clearing, and passed within its limits */
  readonly monitored: boolean;
  readonly quiet: boolean;
  /** Of one that is not quiet */
  readonly waits?: CodeWait;
  /** Of a quiet one: how long it was driven without it, min */
  readonly drivenQuiet?: number;
  /** Stands as permanent: only the car itself takes it out, once its own monitor has passed */
  readonly permanent: boolean;
}

/** How long a quiet code was quiet, in words. */
export const quietAfter = ({ drivenQuiet = 0 }: Pick<ChasedCode, "drivenQuiet">): string =>
  `quiet after ${Math.round(drivenQuiet)} min of driving`;

/** Shortest drive after which a code's silence says something, minutes; own judgement. */
export const SHORTEST_DRIVE = 10;

/** A clock that was read by eye may be off by so much, min. */
const CLOCKS = 2;

/** Faster than this no drive goes on the whole, m/s. */
const FASTEST = 60;
const isDrivable = ({ minutes, distance }: Bodies["drive"]): boolean => !distance || toSi(distance) <= minutes * 60 * FASTEST;

const PRESENT: readonly CodeRead["status"][] = ["current", "pending", "stored"];

/** Every code that was ever read and not set aside, in the order first read, where it was set; lines taken out included. */
export function chasedCodes(lines: readonly Line[], retracted: readonly Line[], aside: ReadonlySet<string>): CodeSet[] {
  const reads = [...lines, ...retracted].filter((l) => l.kind === "codes") as unknown as LineOf<"codes">[];
  const all = reads.flatMap((l) => [...(l.former as Bodies["codes"][]), l.body].map((b) => b.codes));
  const newest = new Map<string, CodeRead>();
  // The first frame that says anything: an ECU keeps it, and a later reading without one takes nothing back.
  const places = new Map<string, CodeSet["at"]>();
  for (const c of all.flat()) {
    const code = c.code.toUpperCase();
    newest.set(code, c);
    if (Object.keys(places.get(code) ?? {}).length === 0) places.set(code, setAt(c));
  }
  return [...newest]
    .filter(([code, c]) => !c.asideReason && !aside.has(code))
    .map(([code]) => ({ code, at: places.get(code) ?? {} }));
}

/** Share of full load from which a road must be asked for as much again. */
const LOADED = 0.6;

/** Conditions of a drive that answers a code by its freeze frame: the similar conditions of mixture and misfire codes. */
function comesUnderOf({ code, at }: CodeSet, { limits, vehicle }: CheckContext): readonly ComesUnder[] {
  const misfire = monitorOf(code) === "misfire";
  if (!misfire && mixtureBanks(code, vehicle.banks).length === 0) return [];
  const cold = at.coolant !== undefined && at.coolant < limits.warmCoolant.value;
  // What a mixture code was set at is asked of a survey.
  return [...(misfire && (at.load ?? 0) >= LOADED ? (["load"] as const) : []), ...(cold ? (["cold"] as const) : [])];
}

/** Beside the code itself, what its state rests on. */
interface CodeFacts {
  readonly lines: readonly Line[];
  readonly touches: readonly Touch[];
  readonly evidence: readonly Evidence[];
  readonly context: CheckContext | undefined;
}

/**
 * Whether a chased code is quiet: cleared after the last work on the car, driven after that under what it was set under, and read again
 * after the drive in the modules it was read in before, without it. Its own monitor, run since and passed, stands for the drive.
 */
export function codeState(set: CodeSet, { lines, touches, evidence, context }: CodeFacts): ChasedCode {
  const { code } = set;
  const of = <K extends keyof Bodies>(kind: K) => linesOf(lines, kind);
  const reads = of("codes");
  const cleared = of("codes-cleared").filter((c) => touches.every((t) => !t.work || (t.ended && isAfter(c, t.ended))));
  const found = (r: LineOf<"codes">) => r.body.codes.find((c) => c.code.toUpperCase() === code);
  const last = reads.at(-1);
  const permanent = last !== undefined && found(last)?.status === "permanent";
  const passed = of("monitor").filter((m) => (m.body.of ?? "evap") === monitorOf(code) && monitorResult(m.body) === "passed");
  const monitored = passed.some((m) => cleared.some((c) => ranSince(m, c, context)));
  const not = (waits: CodeWait): ChasedCode => ({ ...set, quiet: false, waits, permanent, monitored });
  if (cleared.length === 0) return not({ for: "clearing" });
  // Read anew since: pending or current, it is back, however it was got there.
  const since = reads.filter((r) => cleared.some((c) => isAfter(r, c)));
  const back = since.findLast((r) => PRESENT.includes(found(r)?.status ?? "history"));
  const chains = cleared.flatMap((clear) =>
    since
      .filter((r) => isAfter(r, clear))
      .map((read) => {
        const drives = of("drive").filter((d) => isAfter(d, clear) && isAfter(read, d));
        const said = drives.reduce((sum, d) => sum + d.body.minutes, 0);
        // Nobody drives for longer than there is between the two, and no car is faster than any car.
        const between = Math.max(0, elapsed(read, clear) / 60_000);
        const driven = drives.reduce((sum, d) => sum + (isDrivable(d.body) ? d.body.minutes : 0), 0);
        const ran = passed.some((m) => ranSince(m, clear, context) && isAfter(read, m));
        return { read, clear, drives, said, between, ran, minutes: ran ? SHORTEST_DRIVE : said > between + CLOCKS ? 0 : driven };
      }),
  );
  if (
    back &&
    !chains.some((c) => c.minutes >= SHORTEST_DRIVE && c.read !== back && isAfter(c.read, back) && !isPresent(found(c.read)))
  )
    return not({
      for: "cure",
      status: found(back)?.status ?? "current",
      isNew: !reads.some((r) => found(r) && cleared.some((c) => isAfter(c, r))),
    });
  const modules = modulesOf(code, reads);
  const driven = chains.filter((c) => c.minutes >= SHORTEST_DRIVE && !isPresent(found(c.read)));
  const squeezed = chains.findLast((c) => c.said >= SHORTEST_DRIVE && c.said > c.between + CLOCKS && !isPresent(found(c.read)));
  // Written down with its minutes counted back, it would have begun before the codes were cleared.
  const overlaps = of("drive").flatMap((d) => {
    const clear = cleared.findLast((c) => c.seq < d.seq && d.own.from < c.own.to && d.own.to > c.own.to);
    return clear ? [{ said: d.body.minutes, between: (d.own.to - clear.own.to) / 60_000 }] : [];
  });
  if (driven.length === 0 && overlaps.length > 0) return not({ for: "time", ...(overlaps.at(-1) as (typeof overlaps)[number]) });
  if (driven.length === 0 && squeezed) return not({ for: "time", said: squeezed.said, between: squeezed.between });
  if (driven.length === 0) {
    const any = of("drive").some((d) => cleared.some((c) => isAfter(d, c)));
    return not({ for: any ? "reading" : "drive" });
  }
  const under = context ? comesUnderOf(set, context) : [];
  // A log read at its own operating point since says as much of the load as a road's name.
  const similar = context ? similarTo(set.at, context) : [];
  const logged = (clear: Line) =>
    similar.length > 0 && evidence.some((e) => isAfter(e.line, clear) && e.claims.some((c) => isUnder(c.at ?? [], similar)));
  const lacks = (c: (typeof driven)[number]) =>
    c.ran ? [] : under.filter((one) => !metOn(one, c.drives) && !(one === "load" && logged(c.clear)));
  const as = driven.filter((c) => lacks(c).length === 0);
  if (as.length === 0) return not({ for: "conditions", under: lacks(driven.at(-1) as (typeof driven)[number]) });
  const whole = as.find((c) => covers(c.read.body.modules, modules));
  if (!whole) return not({ for: "modules", modules });
  const drivenQuiet = Math.max(
    0,
    whole.drives.reduce((sum, d) => sum + d.body.minutes, 0),
  );
  return { ...set, quiet: true, drivenQuiet, permanent, monitored };
}

/** Whether a monitor's run is one since the codes were cleared: the vapour system's own needs a soak before it. */
export function ranSince(monitor: LineOf<"monitor">, cleared: Line, context: CheckContext | undefined): boolean {
  const soak = context && isOfVapour(monitor.body) ? 1000 * context.limits.evapSoak.value : 0;
  return isAfter(monitor, cleared) && elapsed(monitor, cleared) >= soak;
}

const isPresent = (read: CodeRead | undefined) => read !== undefined && PRESENT.includes(read.status);

/** Modules that a code was read in, where anybody wrote them down. */
const modulesOf = (code: string, reads: readonly LineOf<"codes">[]): string[] => [
  ...new Set(reads.flatMap((r) => r.body.codes.flatMap((c) => (c.code.toUpperCase() === code && c.module ? [c.module] : [])))),
];

/** Whether a reading of these modules answers for those; one that names none was of the whole car. */
const covers = (read: readonly string[] | undefined, asked: readonly string[]) =>
  !read || read.length === 0 || asked.every((m) => read.includes(m));
