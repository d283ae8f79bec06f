import type { Every } from "@/core/devices/device";

/** The browser's clock, as devices run by it. */
export const every: Every = (ms, tick) => {
  const timer = setInterval(tick, ms);
  return () => clearInterval(timer);
};
