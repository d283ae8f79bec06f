import { fireEvent, render, screen, waitFor } from "@testing-library/react";
import { useLayoutEffect, useState } from "react";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { useImmediate } from "./use-immediate";

/** A component that takes its time to draw, as a chart does on a slow tablet. */
function Slow({ of }: { of: string }) {
  for (const until = performance.now() + 2; performance.now() < until; );
  return <output>{of}</output>;
}

/** Log of each drawing: what stood there, and what was shown for it. */
const drawn: [value: string, shown: string][] = [];

function Field() {
  const [value, setValue] = useState("");
  const [shown, change] = useImmediate(value, setValue);
  useLayoutEffect(() => {
    drawn.push([value, shown]);
  });
  return (
    <>
      <input aria-label="Typed" value={shown} onChange={(e) => change(e.target.value)} />
      <button type="button" onClick={() => setValue("from elsewhere")}>
        Elsewhere
      </button>
      <Slow of={value} />
    </>
  );
}

/** A key as the browser sends it: the letter goes behind what stands there, and nobody waits for React. */
function press(input: HTMLInputElement, letter: string): void {
  const { set } = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value") as { set: (v: string) => void };
  set.call(input, input.value + letter);
  input.dispatchEvent(new Event("input", { bubbles: true }));
}

const PAUSES = [
  async () => {},
  () => Promise.resolve(),
  () => new Promise((done) => setImmediate(done)),
  () => new Promise((done) => setTimeout(done, 0)),
  () => new Promise((done) => setTimeout(done, 3)),
];

describe("what a hand types", () => {
  // Between two keys React draws when it likes, as in a browser: the test does not wait for it to be done.
  const env = globalThis as { IS_REACT_ACT_ENVIRONMENT?: boolean };
  const before = env.IS_REACT_ACT_ENVIRONMENT;
  beforeAll(() => {
    env.IS_REACT_ACT_ENVIRONMENT = false;
  });
  afterAll(() => {
    env.IS_REACT_ACT_ENVIRONMENT = before ?? true;
  });

  it("loses no letter, however fast the keys come and however slow what follows is drawn", async () => {
    render(<Field />);
    const input = (await screen.findByRole("textbox")) as HTMLInputElement;
    let typed = "";
    for (let i = 0; i < 400; i++) {
      const letter = String.fromCharCode(97 + (i % 26));
      typed += letter;
      press(input, letter);
      await PAUSES[(i * i + 3 * i + Math.floor(i / 7)) % PAUSES.length]?.();
    }
    await waitFor(() => expect(screen.getByRole("status").textContent).toBe(typed));
    expect(input.value).toBe(typed);
  });

  it("gives way to what comes from elsewhere, once nothing of the hand's own is on its way", async () => {
    render(<Field />);
    const [input] = (await screen.findAllByRole("textbox")) as [HTMLInputElement];
    fireEvent.change(input, { target: { value: "by hand" } });
    await waitFor(() => expect(screen.getByRole("status").textContent).toBe("by hand"));
    fireEvent.click(screen.getByRole("button", { name: "Elsewhere" }));
    await waitFor(() => expect(input.value).toBe("from elsewhere"));
    // At once: a form that was recorded is empty in the drawing that shows its entry.
    for (const [value, shown] of drawn.filter(([v]) => v === "from elsewhere")) expect(shown).toBe(value);
  });
});
