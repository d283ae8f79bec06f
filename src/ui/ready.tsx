"use client";

import { useEffect, useState } from "react";
import { replayEarly } from "./early-taps";

/** Stands last in a page's own content: once it runs, all of that answers, and what was tapped too early is done. */
export function Ready() {
  const [stands, setStands] = useState(false);
  // What the rest of the page learns as it comes to life is drawn by the second time.
  useEffect(() => {
    if (stands) replayEarly();
    else setStands(true);
  }, [stands]);
  return null;
}
