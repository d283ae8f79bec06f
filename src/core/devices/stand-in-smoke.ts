import type { SmokeFill } from "../practice/smoke-fill";
import type { Every, SmokeMachine } from "./device";

/** How often ball and gauge are read, ms. */
const TICK = 1000;

/**
 * A simulated smoke machine on a simulated fill, by the wall clock.
 * @param frames how often the fill is moved on between two readings.
 */
export const standInSmoke = (fill: SmokeFill, every: Every, frames = 1): SmokeMachine => ({
  name: "Stand-in smoke machine",
  simulated: true,
  start(row) {
    let at = 0;
    let over = false;
    let frame = 0;
    const stop = every(TICK / frames, () => {
      if (over) return;
      frame++;
      at = (frame * TICK) / frames / 1000;
      fill.advance(at);
      if (frame % frames === 0) row({ at, ...fill.read() });
    });
    return () => {
      over = true;
      stop();
    };
  },
});
