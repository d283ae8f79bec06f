import { describe, expect, it } from "vitest";
import { playedInstrument, playedUntil, playTime, type TimedInstrument } from "./played";

const HOLD = {
  joint: "flap-pipe",
  strokes: 2,
  still: [
    [0, 20],
    [30, 19.9],
    [60, 19.8],
  ],
  wiggled: [
    [0, 20],
    [40, 12],
  ],
};
const DECAY = {
  samples: [
    [0, 10],
    [75, 8],
    [150, 6],
  ],
  reference: {
    diameter: { value: 0.5, unit: "mm" },
    samples: [
      [0, 10],
      [150, 3],
    ],
  },
};

/** A clock that a test turns by hand. */
function byHand() {
  let tick: (() => void) | undefined;
  return {
    every: (_ms: number, next: () => void) => {
      tick = next;
      return () => {
        tick = undefined;
      };
    },
    turn: (times: number) => {
      for (let i = 0; i < times; i++) tick?.();
    },
    get runs() {
      return tick !== undefined;
    },
  };
}
const read = (instrument: TimedInstrument) => {
  const parts: { record: object; at: number }[] = [];
  let whole: object | undefined;
  const stop = instrument.start({
    part: (record, at) => parts.push({ record, at }),
    ended: (record) => {
      whole = record;
    },
  });
  return { parts, stop, whole: () => whole };
};

describe("an instrument read over a time", () => {
  it("shows nothing that has not come yet, one series after the other, and the whole at its end", () => {
    expect(playTime(HOLD)).toBe(100);
    expect(playTime(DECAY)).toBe(300);
    expect(playTime({ rpm: 740 })).toBe(0);
    expect(playedUntil(HOLD, 0)).toEqual({ ...HOLD, still: [[0, 20]], wiggled: [] });
    expect(playedUntil(HOLD, 59)).toEqual({ ...HOLD, still: HOLD.still.slice(0, 2), wiggled: [] });
    expect(playedUntil(HOLD, 60)).toEqual({ ...HOLD, wiggled: [[0, 20]] });
    expect(playedUntil(HOLD, 100)).toEqual(HOLD);
    expect(playedUntil(DECAY, 150)).toMatchObject({ samples: DECAY.samples, reference: { samples: [[0, 10]] } });
  });

  it("comes by the clock or faster, and ends by itself", () => {
    const clock = byHand();
    const { parts, whole } = read(playedInstrument(HOLD, clock.every, 10));
    expect(parts).toHaveLength(1);
    clock.turn(19);
    expect(parts.at(-1)?.at).toBe(95);
    expect(whole()).toBeUndefined();
    clock.turn(1);
    expect(whole()).toEqual(HOLD);
    expect(clock.runs).toBe(false);
  });

  it("unplugged in the middle it calls nobody more, and what came stays", () => {
    const clock = byHand();
    const { parts, stop, whole } = read(playedInstrument(HOLD, clock.every, 10));
    clock.turn(6);
    stop();
    clock.turn(30);
    expect(parts.at(-1)).toEqual({ at: 30, record: { ...HOLD, still: HOLD.still.slice(0, 2), wiggled: [] } });
    expect(whole()).toBeUndefined();
  });
});
