import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { weakness } from "../../scripts/passphrase.mjs";
import { newCode, takeCode } from "./live";
import { type Guessed, guess } from "./rate-limit";

const wrong = async () => false;
const right = async () => true;

describe("guesses at the passphrase", () => {
  beforeEach(() => {
    vi.useFakeTimers();
    vi.spyOn(console, "warn").mockImplementation(() => {});
    (globalThis as { pelotaGuesses?: unknown }).pelotaGuesses = undefined;
  });
  afterEach(() => {
    vi.useRealTimers();
    vi.restoreAllMocks();
  });

  it("are looked at one at a time, with waits that grow, each address by itself", async () => {
    const waits: number[] = [];
    for (let i = 0; i < 8; i++) {
      const said = (await guess("10.0.0.9", wrong)) as Extract<Guessed, { in: false }>;
      waits.push(said.wait);
      vi.advanceTimersByTime(said.wait * 1000);
    }
    expect(waits).toEqual([0, 0, 1, 2, 4, 8, 16, 32]);
    expect(await guess("10.0.0.7", right)).toEqual({ in: true });
    const { wait } = (await guess("10.0.0.9", wrong)) as { wait: number };
    expect(wait).toBe(64);
    // Before its wait is over not even the right one is looked at.
    const check = vi.fn(right);
    expect(await guess("10.0.0.9", check)).toEqual({ in: false, wait: 64, looked: false });
    expect(check).not.toHaveBeenCalled();
    vi.advanceTimersByTime(64_000);
    expect(await guess("10.0.0.9", right)).toEqual({ in: true });
    expect(await guess("10.0.0.9", wrong)).toEqual({ in: false, wait: 0, looked: true });
  });

  it("are not taken while another from there is being looked at", async () => {
    let answer: (right: boolean) => void = () => {};
    const slow = guess("10.0.0.5", () => new Promise((done) => (answer = done)));
    expect(await guess("10.0.0.5", right)).toEqual({ in: false, wait: 1, looked: false, busy: true });
    answer(true);
    expect(await slow).toEqual({ in: true });
  });

  it("never wait longer than five minutes, and are logged", async () => {
    for (let i = 0; i < 20; i++) {
      const said = (await guess("PIN of Wren Alder", wrong)) as { wait: number };
      expect(said.wait).toBeLessThanOrEqual(300);
      vi.advanceTimersByTime(said.wait * 1000);
    }
    expect(console.warn).toHaveBeenLastCalledWith("Wrong PIN of Wren Alder, 20 so far");
  });

  it("of a stranger void no colleague's code", () => {
    const { code } = newCode();
    for (let i = 0; i < 50; i++) takeCode(String(i).padStart(6, "x"));
    expect(takeCode(code)).toBe(true);
    expect(takeCode(code)).toBe(false);
  });
});

describe("a weak passphrase", () => {
  it.each([
    ["short", /at least 8/],
    ["1234 5678", /only digits/],
    ["aaaaaaaa", /too few different/],
    ["abcdefghij", /row of neighbours/],
    ["Password1", /everybody tries first/],
    ["Garage2026!", /everybody tries first/],
  ])("%s is refused with its reason", (passphrase, reason) => {
    expect(weakness(passphrase)).toMatch(reason);
  });
  it("is told from a good one", () => {
    expect(weakness("tide and timber")).toBeUndefined();
    expect(weakness("gr4vel&rope")).toBeUndefined();
  });
});
