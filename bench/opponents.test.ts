import { describe, expect, it } from "vitest";
import { opponentsTrial } from "./opponents";
import { carOfShop } from "./shops";

describe("the app against charts", () => {
  it("takes less time than the best of them where air is pumped into the exhaust, and fits no part to a sound car", () => {
    const { players } = opponentsTrial(12, 3_000, (seed) => carOfShop("secondary-air", "shops", seed));
    const [app, ...charts] = players;
    expect(app?.minutes).toBeLessThan(Math.min(...charts.map((c) => c.minutes)));
    expect(app?.fitted).toBe(0);
    expect(app?.found).toBeGreaterThan(0.6);
  });
  it("draws causes as often as its world has them", () => {
    const first = (world: "table" | "flat") =>
      Array.from({ length: 40 }, (_, i) => carOfShop("evap", world, 10_000 + 31 * i).faults[0]?.id).filter(Boolean);
    const caps = (ids: readonly unknown[]) => ids.filter((id) => id === "filler-cap").length / ids.length;
    expect(caps(first("flat"))).toBeLessThan(caps(first("table")));
    const sound = Array.from({ length: 80 }, (_, i) => carOfShop("engine", "table", 20_000 + i)).filter(
      (c) => c.faults.length === 0,
    );
    expect(sound.length).toBeGreaterThan(4);
    expect(sound.length).toBeLessThan(24);
  });
});
