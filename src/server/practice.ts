import { and, desc, eq, exists, ne } from "drizzle-orm";
import { may } from "@/core/people";
import { isOver } from "@/core/practice/bay-entries";
import { practiceCase } from "@/core/practice/case";
import type { PlayedCase } from "@/core/practice/debrief";
import { PRICES, stillThere, worldOf } from "@/core/practice/world";
import { type Db, db } from "./db/open";
import { entries, jobs } from "./db/schema";
import { readEntries } from "./jobs";
import type { Who } from "./sign-in";

/** Practice cases that a person may see: their own, and everything where they may. */
export function playedBy(who: Who | undefined, at: Db = db()): PlayedCase[] {
  return playedCases(60, at, may(who?.role, "see-practice") ? undefined : who?.name);
}

/** The newest cases that were played here, each with how it went; one of another version is left out. @param by whose alone. */
export function playedCases(limit = 60, at: Db = db(), by?: string): PlayedCase[] {
  // Who plays a case is who opened it.
  const opened = exists(
    at
      .select({ id: entries.id })
      .from(entries)
      .where(and(eq(entries.jobId, jobs.id), eq(entries.kind, "opened"), eq(entries.by, by ?? ""))),
  );
  const rows = at
    .select()
    .from(jobs)
    .where(and(ne(jobs.practice, ""), ...(by === undefined ? [] : [opened])))
    .orderBy(desc(jobs.updatedAt))
    .limit(limit)
    .all();
  return rows.flatMap((row): PlayedCase[] => {
    const journal = readEntries(row.id, 0, at);
    const given = knownCase(row.practice);
    if (!given) return [];
    const world = worldOf(given, journal);
    const over = isOver(journal);
    const left = stillThere(world).length > 0;
    return [
      {
        jobId: row.id,
        number: row.number,
        code: row.practice,
        family: given.family,
        vehicle: row.vehicle,
        by: journal.find((e) => e.kind === "opened")?.by ?? "",
        at: row.createdAt,
        over,
        won: over && !left,
        comeback: over && left,
        minutes: world.minutes,
        money: world.money + (over && left ? PRICES.comeback + PRICES.crossing : 0),
        hints: world.hints,
      },
    ];
  });
}

const knownCase = (code: string) => {
  try {
    return practiceCase(code);
  } catch {
    return undefined;
  }
};
