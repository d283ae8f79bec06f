"use client";

import { useEffect, useRef } from "react";
import type { Joint } from "@/core/vehicle";
import { type Overlay, useOverlay } from "../overlay";

/** Shows on the air map where the instrument in hand is at; a joint it fits can be taken by tapping it there. */
export function usePlace(
  at: string | undefined,
  fits: (joint: Joint) => boolean,
  choose: ((id: string) => void) | undefined,
  shows: { readonly clocks?: Overlay["clocks"]; readonly setup?: Overlay["setup"] },
): void {
  const { setOverlay } = useOverlay();
  const latest = useRef({ fits, choose });
  latest.current = { fits, choose };
  // Made anew on every render, they are the same until what they say changes.
  const said = JSON.stringify([shows.clocks, shows.setup]);
  useEffect(() => {
    const [clocks, setup] = JSON.parse(said) as [Overlay["clocks"], Overlay["setup"]];
    setOverlay({
      ...(at ? { at } : {}),
      ...(clocks ? { clocks } : {}),
      ...(setup ? { setup } : {}),
      actions: (joint) => {
        const { fits, choose } = latest.current;
        return choose && fits(joint) && joint.id !== at ? [{ label: "Check here", run: () => choose(joint.id) }] : [];
      },
    });
  }, [at, said, setOverlay]);
  useEffect(() => () => setOverlay({}), [setOverlay]);
}
