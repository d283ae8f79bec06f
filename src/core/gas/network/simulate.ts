import type { Simulation } from "./case";
import { Network } from "./network";

/** Channels by name, and a row of their values at every reading, SI. */
export interface Channels {
  readonly names: readonly string[];
  rows(): Generator<readonly number[]>;
}

/**
 * Runs a case: `t` (s), `p:<zone>` (Pa absolute), `T:<zone>` (K), `m:<joint>` (kg/s, positive from `from` to `to`), and `c:<zone>`
 * (share of the tracer, 0…1) at 0, every, 2·every … until. A row at the time of an event shows the joint as the event left it.
 */
export function simulate({ spec, events, until, every }: Simulation): Channels {
  const { zones, joints, tracer } = spec;
  const names = [
    "t",
    ...zones.map((z) => `p:${z.id}`),
    ...zones.map((z) => `T:${z.id}`),
    ...joints.map((j) => `m:${j.id}`),
    ...(tracer === undefined ? [] : zones.map((z) => `c:${z.id}`)),
  ];
  return {
    names,
    *rows() {
      const network = new Network(spec);
      let next = 0;
      const count = Math.floor(until / every + 1e-9);
      for (let k = 0; k <= count; k++) {
        const t = k * every;
        for (; next < events.length && (events[next] as (typeof events)[number]).at <= t; next++) {
          const event = events[next] as (typeof events)[number];
          network.advance(event.at);
          network.set(event.joint, event.law);
        }
        network.advance(t);
        const flows = network.flowsNow();
        yield [
          t,
          ...zones.map((_, i) => network.pressure(i)),
          ...zones.map((_, i) => network.temperature(i)),
          ...flows.map((f) => f.flow),
          ...(tracer === undefined ? [] : Array.from(network.share)),
        ];
      }
    },
  };
}
