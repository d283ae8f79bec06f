import { render, screen } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";

const server = vi.hoisted(() => ({ answers: false }));
vi.mock("./charts", async (real) => {
  if (!server.answers) throw new Error("Loading chunk failed");
  return real();
});

describe("a chart", () => {
  it("says what it would show where it cannot be drawn, and is drawn once the server is back", async () => {
    const { ChartFrame } = await import("./chart-frame");
    render(
      <ChartFrame title="Flow over time" words="Settling to 4.2 L/min">
        {({ ComposedChart }) => <ComposedChart data-testid="drawn" data={[]} width={100} height={100} />}
      </ChartFrame>,
    );
    // What it says stands from the start, for those who cannot see it.
    const chart = screen.getByRole("img", { name: "Flow over time. Settling to 4.2 L/min" });
    expect(await screen.findByText("Drawn once the server is back. Settling to 4.2 L/min")).toBeDefined();
    server.answers = true;
    window.dispatchEvent(new Event("online"));
    await vi.waitFor(() => expect(chart.querySelector(".recharts-responsive-container")).not.toBeNull());
    expect(screen.queryByText(/Drawn once/)).toBeNull();
  });
});
