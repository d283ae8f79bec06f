import { act, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Charts } from "./charts";
import { useCharts } from "./use-charts";

function Chart({ source }: { source: Parameters<typeof useCharts>[0] }) {
  const { charts, away } = useCharts(source);
  return <p>{charts ? "drawn" : away ? "away" : "coming"}</p>;
}

afterEach(() => void vi.useRealTimers());

describe("what charts are drawn with", () => {
  it("is fetched once for all charts; while the server is offline that is said, and it comes once it is back", async () => {
    vi.useFakeTimers();
    const passing = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));
    let asked = 0;
    let answers = false;
    const source = {
      fetch: async () => {
        asked++;
        if (!answers) throw new Error("Loading chunk failed");
        return {} as Charts;
      },
    };
    const { unmount } = render(<Chart source={source} />);
    expect(screen.getByText("coming")).toBeDefined();
    await passing(0);
    expect(screen.getByText("away")).toBeDefined();
    await passing(5000);
    expect(screen.getByText("away")).toBeDefined();
    // A server that was stopped and started again, on a network that stood all the while.
    answers = true;
    await passing(5000);
    expect(screen.getByText("drawn")).toBeDefined();
    unmount();
    render(<Chart source={source} />);
    // No moment without it, and nobody is asked again.
    expect(screen.getByText("drawn")).toBeDefined();
    expect(asked).toBe(3);
  });
});
