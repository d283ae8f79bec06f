import { codeText } from "../faults";
import type { Bodies } from "./entries";
import { isAfter, type Line, type LineOf, linesOf } from "./proof";

/** A code that the work itself set, and what was off when it came. */
export interface OwnCode {
  readonly code: string;
  readonly because: string;
}

/**
 * Codes of the newest reading that are probably ours: first read after something came off or was unplugged that sets them.
 * They are cleared and read again, not chased; one that was there before is the car's own.
 */
export function ownCodes(lines: readonly Line[]): OwnCode[] {
  const of = <K extends keyof Bodies>(kind: K) => linesOf(lines, kind);
  const reads = of("codes");
  const off = of("displaced");
  const newest = reads.at(-1);
  /** Cleared with it back on, and read again since: what is there now, the car set. */
  const cameBack = (item: Line) =>
    of("restored").some(
      (r) =>
        r.body.item === item.id && of("codes-cleared").some((c) => isAfter(c, r) && newest !== undefined && isAfter(newest, c)),
    );
  const has = (read: LineOf<"codes">, code: string) => read.body.codes.some((c) => c.code.toUpperCase() === code);
  return (newest?.body.codes ?? []).flatMap((read): OwnCode[] => {
    const code = read.code.toUpperCase();
    const ours = codeText(code)?.ours ?? [];
    const first = reads.find((r) => has(r, code));
    const item = off.find((o) => o.body.joint && ours.includes(o.body.joint) && first && isAfter(first, o));
    // A car that was never read before it was taken apart may have had it all along.
    const without = item && reads.some((r) => !has(r, code) && !isAfter(r, item));
    return item && without && !cameBack(item) ? [{ code, because: item.body.what }] : [];
  });
}
