import { fireEvent, render, screen, waitFor } from "@testing-library/react";
import { useState } from "react";
import { expect, it } from "vitest";
import { Choice } from "./choice";

const SEALS = [
  ["whole", "Whole"],
  ["cracked", "Cracked"],
  ["dirty", "Dirty"],
] as const;

function Seal() {
  const [value, setValue] = useState<(typeof SEALS)[number][0]>();
  return <Choice label="Its seal" options={SEALS} value={value} onChange={setValue} />;
}

it("an arrow key chooses what it moves to, however short it is pressed", async () => {
  render(<Seal />);
  const [whole, cracked, dirty] = screen.getAllByRole("radio") as [HTMLElement, HTMLElement, HTMLElement];
  whole.focus();
  // Let go before the focus has moved.
  const press = (on: HTMLElement, key: string) => {
    fireEvent.keyDown(on, { key });
    fireEvent.keyUp(on, { key });
  };
  press(whole, "ArrowRight");
  await waitFor(() => expect(document.activeElement).toBe(cracked));
  await waitFor(() => expect(cracked).toHaveProperty("ariaChecked", "true"));
  press(cracked, "ArrowRight");
  await waitFor(() => expect(dirty).toHaveProperty("ariaChecked", "true"));
  // Coming by Tab or tapping past chooses nothing.
  whole.focus();
  expect(dirty).toHaveProperty("ariaChecked", "true");
});
