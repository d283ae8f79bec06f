import { act, render, screen } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import type { Charts } from "./charts";
import { useCharts } from "./use-charts";

function Chart({ source }: { source: Parameters<typeof useCharts>[0] }) {
  const { charts, away } = useCharts(source);
  return <p>{charts ? "drawn" : away ? "away" : "coming"}</p>;
}

describe("what charts are drawn with", () => {
  it("is fetched once for all charts; while the server is away that is said, and it comes once it is back", async () => {
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
    expect(await screen.findByText("away")).toBeDefined();
    // Back on a network that leads nowhere it still is away.
    await act(async () => window.dispatchEvent(new Event("online")));
    expect(screen.getByText("away")).toBeDefined();
    answers = true;
    await act(async () => window.dispatchEvent(new Event("online")));
    expect(screen.getByText("drawn")).toBeDefined();
    unmount();
    render(<Chart source={source} />);
    // No moment without it, and nobody is asked again.
    expect(screen.getByText("drawn")).toBeDefined();
    expect(asked).toBe(3);
  });
});
