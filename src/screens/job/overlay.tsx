"use client";

import { createContext, useContext } from "react";
import type { FillSetup, Joint } from "@/core/vehicle";

/** A clock that runs towards something. */
export interface RunningClock {
  readonly name: string;
  /** ms since 1970 */
  readonly end: number;
  /** Its text once it has run out */
  readonly done: string;
  /** It is heard so long before its end, s: there is something to do then; at its end unless said */
  readonly before?: number;
}

/** Layer that a running check draws over the air map and offers where it is tapped. */
export interface Overlay {
  /** A smoke setup: what its fill can reach is misted */
  readonly setup?: FillSetup;
  /** Joint that the instrument in hand is at */
  readonly at?: string;
  /** Joints where smoke was seen in this run */
  readonly seen?: readonly string[];
  readonly clocks?: readonly RunningClock[];
  /** Actions that can be done with a joint right now */
  readonly actions?: (joint: Joint) => readonly { readonly label: string; readonly run: () => void }[];
}

interface OverlayStore {
  readonly overlay: Overlay;
  readonly setOverlay: (overlay: Overlay) => void;
  /** Where an instrument's verdict stands beside it, on a wide screen */
  readonly side: HTMLElement | null;
}

const Context = createContext<OverlayStore>({ overlay: {}, setOverlay: () => {}, side: null });
export const OverlayProvider = Context.Provider;
export const useOverlay = () => useContext(Context);
