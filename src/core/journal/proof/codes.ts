import { toSi } from "../../units";
import type { Bodies, CodeRead } from "../entries";
import { elapsed, isAfter, type Line, type LineOf, linesOf } from "./order";
import type { Touch } from "./touches";

/** The next step that a chased code waits for. */
export type CodeWait =
  | { readonly for: "clearing" | "drive" | "reading" }
  /** Cleared, and there again */
  | { readonly for: "cure"; readonly status: CodeRead["status"] }
  /** Read again in some of the modules alone that it was read in */
  | { readonly for: "modules"; readonly modules: readonly string[] }
  /** Driven for longer than there was between clearing and reading, min */
  | { readonly for: "time"; readonly said: number; readonly between: number };

/** A code that was chased once: it stays owed, though it was cleared. */
export interface ChasedCode {
  readonly code: string;
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

/** Every code that was ever read and not set aside, in the order first read; lines taken out included. */
export function chasedCodes(lines: readonly Line[], retracted: readonly Line[], aside: ReadonlySet<string>): string[] {
  const reads = [...lines, ...retracted].filter((l) => l.kind === "codes") as unknown as LineOf<"codes">[];
  const all = reads.flatMap((l) => [...(l.former as Bodies["codes"][]), l.body].map((b) => b.codes));
  const newest = new Map<string, CodeRead>();
  for (const codes of all) for (const c of codes) newest.set(c.code.toUpperCase(), c);
  return [...newest].filter(([code, c]) => !c.asideReason && !aside.has(code)).map(([code]) => code);
}

/**
 * Whether a chased code is quiet: cleared after the last work on the car, driven after that, and read again
 * after the drive in the modules it was read in before, without it.
 */
export function codeState(code: string, lines: readonly Line[], touches: readonly Touch[]): ChasedCode {
  const of = <K extends keyof Bodies>(kind: K) => linesOf(lines, kind);
  const reads = of("codes");
  const cleared = of("codes-cleared").filter((c) => touches.every((t) => !t.work || (t.ended && isAfter(c, t.ended))));
  const found = (r: LineOf<"codes">) => r.body.codes.find((c) => c.code.toUpperCase() === code);
  const last = reads.at(-1);
  const permanent = last !== undefined && found(last)?.status === "permanent";
  const not = (waits: CodeWait): ChasedCode => ({ code, quiet: false, waits, permanent });
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
        return { read, said, between, minutes: said > between + CLOCKS ? 0 : driven };
      }),
  );
  if (
    back &&
    !chains.some((c) => c.minutes >= SHORTEST_DRIVE && c.read !== back && isAfter(c.read, back) && !isPresent(found(c.read)))
  )
    return not({ for: "cure", status: found(back)?.status ?? "current" });
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
  const whole = driven.find((c) => covers(c.read.body.modules, modules));
  if (!whole) return not({ for: "modules", modules });
  return { code, quiet: true, drivenQuiet: whole.minutes, permanent };
}

const isPresent = (read: CodeRead | undefined) => read !== undefined && PRESENT.includes(read.status);

/** Modules that a code was read in, where anybody wrote them down. */
const modulesOf = (code: string, reads: readonly LineOf<"codes">[]): string[] => [
  ...new Set(reads.flatMap((r) => r.body.codes.flatMap((c) => (c.code.toUpperCase() === code && c.module ? [c.module] : [])))),
];

/** Whether a reading of these modules answers for those; one that names none was of the whole car. */
const covers = (read: readonly string[] | undefined, asked: readonly string[]) =>
  !read || read.length === 0 || asked.every((m) => read.includes(m));
