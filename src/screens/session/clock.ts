"use client";

import { load, save } from "./storage";

/** How far the server's clock is ahead of this device's, as it was last heard, ms */
const AHEAD = "pelota.clockAhead";
/** A server says its time in whole seconds, and an answer takes its while, ms. */
const FINE = 3000;

/** The server has said what time it is: from now on this device's clock is read with that in mind. */
export function heardTime(date: string | null): void {
  const said = Date.parse(date ?? "");
  if (!Number.isFinite(said)) return;
  const ahead = said - Date.now();
  if (Math.abs(ahead - (load<number>(AHEAD) ?? 0)) > FINE) save(AHEAD, Math.abs(ahead) > FINE ? ahead : undefined);
}

/** The time by this device's clock, set right by what the server last said, ms since 1970. */
export const timeNow = (): number => Date.now() + (load<number>(AHEAD) ?? 0);
