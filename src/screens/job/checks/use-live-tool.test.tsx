import { act, renderHook } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Listener, ScanTool } from "@/core/devices/device";
import { useLiveTool } from "./use-live-tool";

/** A tool whose rows come when the test says so, stopped or not. */
function tool() {
  let listener: Listener | undefined;
  let at = 0;
  let stopped = false;
  const device: ScanTool = {
    name: "Test tool",
    simulated: true,
    channels: ["rpm"],
    start: (one) => {
      listener = one;
      stopped = false;
      return () => {
        stopped = true;
      };
    },
  };
  const row = () =>
    act(() => {
      at += 2;
      if (!stopped) listener?.row({ at, values: { rpm: 740 } });
    });
  const end = () => act(() => listener?.ended("It is over"));
  return { device, row, end, stopped: () => stopped };
}

const reading = (check: { startedAt: string; busy: boolean }) => {
  const looks: number[] = [];
  const hook = renderHook((now: typeof check) => useLiveTool(now, (log) => looks.push(log.rows)), { initialProps: check });
  return { ...hook, looks };
};

it("reads into a check as its rows come, and no further once it is unplugged", () => {
  const { device, row, stopped } = tool();
  const { result, looks, unmount } = reading({ startedAt: "", busy: false });
  act(() => result.current.connect(device));
  row();
  row();
  expect(looks).toEqual([1, 2]);
  act(() => result.current.unplug());
  row();
  expect(looks).toEqual([1, 2]);
  expect(result.current.tool).toBeUndefined();
  act(() => result.current.connect(device));
  unmount();
  expect(stopped()).toBe(true);
});

it("fills nothing of the next check with what the recorded or discarded one had", () => {
  for (const gone of [
    { startedAt: "2026-03-02T10:00:00Z", busy: true },
    { startedAt: "", busy: false },
  ]) {
    const { device, row } = tool();
    const { result, rerender, looks } = reading({ startedAt: "", busy: false });
    act(() => result.current.connect(device));
    row();
    // The first thing it filled in began the check: that is no end of it.
    rerender({ startedAt: "2026-03-02T10:00:00Z", busy: false });
    row();
    expect(looks).toEqual([1, 2]);
    rerender(gone);
    row();
    rerender({ startedAt: "", busy: false });
    row();
    expect(looks).toEqual([1, 2]);
    expect(result.current.tool).toBeUndefined();
  }
});

it("stays plugged in when it ends by itself: its key is not taken from under a finger", () => {
  const { device, row, end } = tool();
  const { result, looks } = reading({ startedAt: "", busy: false });
  act(() => result.current.connect(device));
  row();
  end();
  expect(result.current.ended).toBe("It is over");
  expect(result.current.tool).toBe(device);
  // What came until then was looked at once more.
  expect(looks).toEqual([1, 1]);
  act(() => result.current.unplug());
  expect(result.current).toMatchObject({ tool: undefined, ended: undefined });
});
