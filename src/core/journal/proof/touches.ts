import { CHECK_IDS, CHECKS } from "../../checks";
import { AT_LARGE, type Claim } from "../../checks/claim";
import { CABIN_SEAL } from "../../faults";
import { inSentence } from "../../sentence";
import { type Layout, tappedPort, ZONE_NAMES } from "../../vehicle";
import { ANYWHERE, type Bodies } from "../entries";
import { isAfter, type Line, type LineOf, linesOf } from "./order";

/**
 * Something that was done to the car, with its places; what stands for a while (a plug, a bypass, a command) is one from
 * when it began to when it ended.
 */
export interface Touch {
  readonly began: Line;
  /** Undefined while it still stands; equal to `began` for what is done once and for all */
  readonly ended: Line | undefined;
  /** Undefined: nobody said where */
  readonly places: readonly string[] | undefined;
  /** Repair, bypass, swap, or one of them undone; the rest is taken off, plugged or commanded for a while */
  readonly work: boolean;
  /** A command, or what a check displaced for itself: it un-proves its own place only */
  readonly own: boolean;
  /** Something came off or was plugged: its place must be seen seated again */
  readonly off: boolean;
  readonly words: string;
}

/** A check as far as touches matter to it. */
export interface Taken {
  readonly line: Line;
  /** Joints its own setup takes off, plugs or commands */
  readonly setup: ReadonlySet<string>;
}

/** Parts checks take off for themselves that is no joint of any gas path. */
const TAKEN_OFF: ReadonlySet<string> = new Set(CHECK_IDS.flatMap((id) => CHECKS[id].takesOff ?? []));

/** Every touch of a journal. */
export function touchesOf(lines: readonly Line[], taken: readonly Taken[]): Touch[] {
  const of = <K extends keyof Bodies>(kind: K) => linesOf(lines, kind);
  const undone = new Map(of("undone").map((e) => [e.body.repair, e]));
  const restored = new Map(of("restored").map((e) => [e.body.item, e]));
  const repairs = of("repair");
  const done = repairs.flatMap((e): Touch[] => {
    const { what, permanence } = e.body;
    const places = e.body.places?.includes(ANYWHERE) ? undefined : e.body.places;
    const end = undone.get(e.id);
    const once = { places, work: true, own: false, off: false, words: what };
    // A bypass stands until it is undone; a repair is done, and undoing it is done as well.
    if (permanence === "bypass") return [{ ...once, began: e, ended: end }];
    return [{ ...once, began: e, ended: e }, ...(end ? [{ ...once, began: end, ended: end, words: `undone: ${what}` }] : [])];
  });
  const off = of("displaced").flatMap((e): Touch[] => {
    const { what, joint, swappedBack, elsewhere } = e.body;
    if (elsewhere) return [];
    const ended = restored.get(e.id);
    if (swappedBack) {
      const repair = repairs.find((r) => r.body.what === swappedBack || r.body.otherChanges.includes(swappedBack));
      return [
        {
          began: e,
          ended,
          places: repair?.body.places?.includes(ANYWHERE) ? undefined : repair?.body.places,
          work: true,
          own: false,
          off: false,
          words: what,
        },
      ];
    }
    // Its own setup: a check was taken while it stood, and that check says so.
    const unplaced = joint === undefined && TAKEN_OFF.has(what);
    const own =
      e.body.commanded !== undefined ||
      unplaced ||
      (joint !== undefined &&
        taken.some((t) => t.setup.has(joint) && t.line.own.to >= e.own.from && (!ended || t.line.own.from <= ended.own.to)));
    const places = joint ? [joint] : unplaced ? [] : undefined;
    return [{ began: e, ended, places, work: false, own, off: e.body.commanded === undefined, words: what }];
  });
  return [...done, ...off, ...tappings(of("vehicle"))];
}

/** Ports tapped in the course of the job: what was read before says nothing of them, and each must be seen plugged. */
function tappings(described: readonly LineOf<"vehicle">[]): Touch[] {
  return described.flatMap((e, i) => {
    const before = [...described.slice(0, i).map((d) => d.body), ...(e.former as Bodies["vehicle"][])];
    const fresh = (e.body.tapped ?? []).filter((zone) => before.length > 0 && !before.at(-1)?.tapped?.includes(zone));
    return fresh.map((zone) => ({
      began: e,
      ended: e,
      places: [tappedPort(zone)],
      work: false,
      own: false,
      off: true,
      words: `port tapped into the ${inSentence(ZONE_NAMES[zone])}`,
    }));
  });
}

/** Whether a touch of these places bears on an atom. */
function bears(places: readonly string[] | undefined, claim: Pick<Claim, "rests">, joints: ReadonlySet<string>): boolean {
  if (!places) return true;
  const large = claim.rests.includes(AT_LARGE);
  return places.some((p) => claim.rests.includes(p) || (large && !joints.has(p) && p !== CABIN_SEAL.id));
}

/**
 * The touch that keeps a reading from proving an atom: one that bears on it and was not surely over when the reading
 * began. A check's own displacement or command after it un-proves the very place only.
 */
export function touchInTheWay(
  reading: Taken,
  claim: Pick<Claim, "question" | "place" | "rests">,
  touches: readonly Touch[],
  joints: ReadonlySet<string>,
): Touch | undefined {
  const { place } = claim;
  return touches.find((touch) => {
    if (touch.ended && isAfter(reading.line, touch.ended)) return false;
    const { places } = touch;
    // What its own set-up took off, plugged or commanded while it was read is part of it: its claims leave out what that hides.
    const stood = !isAfter(touch.began, reading.line);
    if (stood && !touch.work && places?.length === 1 && reading.setup.has(places[0] as string)) return false;
    // What another check took off for itself later owes a seated look of its own, and a command that was let go owes nothing.
    if (touch.own && !stood) return touch.off && claim.question === "seated" && (places?.includes(place) ?? true);
    return bears(places, claim, joints);
  });
}

export const jointIds = (layout: Layout): ReadonlySet<string> => new Set(layout.joints.map((j) => j.id));

/** The last work on the car: what a proof must have come after. */
export function lastWorkOf(touches: readonly Touch[]): Line | undefined {
  return touches
    .filter((t) => t.work)
    .map((t) => t.ended ?? t.began)
    .reduce<Line | undefined>((last, line) => (last && last.own.to >= line.own.to ? last : line), undefined);
}
