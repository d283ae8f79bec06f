"use client";

import { proxy } from "comlink";
import type { LiveRow, SmokeMachine, SmokeRow } from "@/core/devices/device";
import { ENGINE_CHANNELS, type StandInEngine } from "@/core/devices/stand-in-engine";
import type { JournalEntry } from "@/core/journal";
import type { SmokePush } from "@/core/practice/smoke-fill";
import type { FillSetup } from "@/core/vehicle";
import { bayWorker } from "./bay-worker";

/** A scan tool on the practice car, which runs in its own thread. */
export function bayEngine(code: string, entries: readonly JournalEntry[], pace: number): StandInEngine {
  let hold: (rpm: number | undefined) => void = () => {};
  let tap: (joint: string) => void = () => {};
  return {
    name: "Scan tool in the practice bay",
    simulated: true,
    channels: ENGINE_CHANNELS,
    hold: (rpm) => hold(rpm),
    tap: (joint) => tap(joint),
    start(listener) {
      let over = false;
      const row = proxy((one: LiveRow) => {
        if (!over) listener.row(one);
      });
      const session = bayWorker().engine(code, entries, pace, row);
      hold = (rpm) => void session.then((s) => s.hold(rpm));
      tap = (joint) => void session.then((s) => s.tap(joint));
      return () => {
        over = true;
        void session.then((s) => s.stop());
      };
    },
  };
}

/** A smoke machine on the practice car, and the eyes of who stands at it. */
export interface BaySmoke extends SmokeMachine {
  /** Joints at which smoke is seen just now, by the light that there is */
  look(): Promise<readonly string[]>;
}

/** A smoke machine on the practice car, likewise. */
export function baySmoke(code: string, entries: readonly JournalEntry[], fill: FillSetup, push: SmokePush): BaySmoke {
  let look: () => Promise<readonly string[]> = async () => [];
  return {
    name: "Smoke machine in the practice bay",
    simulated: true,
    look: () => look(),
    start(row) {
      let over = false;
      const told = proxy((one: SmokeRow) => {
        if (!over) row(one);
      });
      const session = bayWorker().smoke(code, entries, fill, push, told);
      look = async () => (await session).look();
      return () => {
        over = true;
        void session.then((s) => s.stop());
      };
    },
  };
}
