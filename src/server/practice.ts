import { desc, ne } from "drizzle-orm";
import { isOver } from "@/core/practice/bay-entries";
import { practiceCase } from "@/core/practice/case";
import type { PlayedCase } from "@/core/practice/debrief";
import { PRICES, stillThere, worldOf } from "@/core/practice/world";
import { type Db, db } from "./db/open";
import { jobs } from "./db/schema";
import { readEntries } from "./jobs";

/** The newest cases that were played here, each with how it went; one of another version is left out. */
export function playedCases(limit = 60, at: Db = db()): PlayedCase[] {
  const rows = at.select().from(jobs).where(ne(jobs.practice, "")).orderBy(desc(jobs.updatedAt)).limit(limit).all();
  return rows.flatMap((row): PlayedCase[] => {
    const entries = readEntries(row.id, 0, at);
    const given = knownCase(row.practice);
    if (!given) return [];
    const world = worldOf(given, entries);
    const over = isOver(entries);
    const left = stillThere(world).length > 0;
    return [
      {
        jobId: row.id,
        number: row.number,
        code: row.practice,
        family: given.family,
        vehicle: row.vehicle,
        // Who plays a case is who opened it.
        by: entries.find((e) => e.kind === "opened")?.by ?? "",
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
