import type { SmokeFill } from "../practice/smoke-fill";
import type { Every, SmokeMachine } from "./device";

/** How often ball and gauge are read, ms. */
const TICK = 1000;

/** A simulated smoke machine on a simulated fill, by the wall clock. */
export const standInSmoke = (fill: SmokeFill, every: Every): SmokeMachine => ({
  name: "Stand-in smoke machine",
  simulated: true,
  start(row) {
    let at = 0;
    let over = false;
    const stop = every(TICK, () => {
      if (over) return;
      at += TICK / 1000;
      fill.advance(at);
      row({ at, ...fill.read() });
    });
    return () => {
      over = true;
      stop();
    };
  },
});
