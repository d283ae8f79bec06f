"use client";

import { useEffect } from "react";
import type { Joint } from "@/core/vehicle";
import { type Overlay, useOverlay } from "../overlay";

/** Shows on the air map where the instrument in hand is at; a joint it fits can be taken by tapping it there. */
export function usePlace(
  at: string | undefined,
  fits: (joint: Joint) => boolean,
  choose: ((id: string) => void) | undefined,
  clocks?: Overlay["clocks"],
): void {
  const { setOverlay } = useOverlay();
  const running = clocks?.map((c) => `${c.name} ${c.end}`).join() ?? "";
  // biome-ignore lint/correctness/useExhaustiveDependencies: `fits` and `choose` are made anew on every render and do the same
  useEffect(() => {
    setOverlay({
      ...(at ? { at } : {}),
      ...(clocks ? { clocks } : {}),
      actions: (joint) =>
        choose && fits(joint) && joint.id !== at ? [{ label: "Check here", run: () => choose(joint.id) }] : [],
    });
  }, [at, running, setOverlay]);
  useEffect(() => () => setOverlay({}), [setOverlay]);
}
