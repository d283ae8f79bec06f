import { act, fireEvent, screen } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import { EMPTY_SMOKE } from "@/core/checks/smoke";
import { TURBO } from "@/core/core.fixture";
import { JOB } from "@/core/journal/journal.fixture";
import { load, save } from "../../../session/storage";
import { journalOf, onBench } from "../../job.fixture";
import { CheckStation } from "../../stations/check";

const KEY = `pelota.draft.${JOB}.smoke`;
const deed = (what: () => unknown) =>
  act(async () => {
    what();
  });
const kept = () => load<{ flow: number; samples: [number, number, number][] }>(KEY);

/** A run whose hose has been on for a while, with what was read so far. */
function running(samples: readonly (readonly [number, number, number])[] = []) {
  const startedAt = Date.now() - 60_000;
  const draft = { ...EMPTY_SMOKE, phase: "run", zeroed: true, entry: "air-meter", heaterOn: startedAt, startedAt, samples };
  save(KEY, draft);
  onBench(journalOf(TURBO), <CheckStation wanted="smoke" onInstrument={() => {}} />);
  return {
    gauge: screen.getByRole("slider", { name: "Pressure" }),
    ball: screen.getByRole("slider", { name: /^Flow ball/ }),
  };
}

describe("a reading of a smoke run", () => {
  it("is none where the gauge is set before the ball was ever moved: nobody saw that nothing flows", async () => {
    const { gauge, ball } = running();
    await deed(() => fireEvent.change(gauge, { target: { value: "12" } }));
    await deed(() => fireEvent.pointerUp(gauge));
    expect(kept()?.samples ?? []).toEqual([]);
    await deed(() => fireEvent.keyDown(ball, { key: "PageUp" }));
    expect(kept()?.samples.map(([, , pressure]) => pressure)).toEqual([12]);
  });
  it("is none where the focus only passes the gauge", async () => {
    const { gauge } = running([[1, 9, 12]]);
    await deed(() => fireEvent.keyUp(gauge, { key: "Tab" }));
    expect(kept()?.samples).toHaveLength(1);
    await deed(() => fireEvent.keyUp(gauge, { key: "ArrowUp" }));
    expect(kept()?.samples).toHaveLength(2);
  });
  it("is none while the ball is on its way, nor where the drag is broken off", async () => {
    const { ball } = running([[1, 9, 12]]);
    ball.setPointerCapture = () => {};
    ball.hasPointerCapture = () => true;
    ball.getBoundingClientRect = () => ({ top: 0, height: 332 }) as DOMRect;
    const at = { clientY: 162, pointerId: 1 };
    await deed(() => fireEvent.pointerDown(ball, at));
    await deed(() => fireEvent.pointerMove(ball, at));
    expect(kept()?.samples).toHaveLength(1);
    await deed(() => fireEvent.pointerCancel(ball, at));
    expect(ball.getAttribute("aria-valuenow")).toBe("0");
    expect(kept()?.samples).toHaveLength(1);
    await deed(() => fireEvent.pointerDown(ball, at));
    await deed(() => fireEvent.pointerUp(ball, at));
    expect(kept()?.samples).toHaveLength(2);
  });
  it("bounds what is open while the ball still falls", async () => {
    running([
      [20, 9, 12],
      [50, 4, 12],
    ]);
    expect(await screen.findByText(/^Still filling.*: all openings together at most 1\.\d mm$/)).toBeTruthy();
  });
});
