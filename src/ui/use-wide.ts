"use client";

import { useSyncExternalStore } from "react";

const WIDE = "(min-width: 64rem)";
const listen = (tell: () => void) => {
  const query = window.matchMedia(WIDE);
  query.addEventListener("change", tell);
  return () => query.removeEventListener("change", tell);
};

/** Whether columns stand side by side here, as the `lg` breakpoint has it. */
export const useWide = (): boolean =>
  useSyncExternalStore(
    listen,
    () => window.matchMedia(WIDE).matches,
    () => true,
  );
