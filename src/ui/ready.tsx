"use client";

import { useEffect } from "react";
import { replayEarly } from "./early-taps";

/** Stands last on the page: once it runs, everything before it answers, and what was tapped too early is done. */
export function Ready() {
  useEffect(() => replayEarly(), []);
  return null;
}
