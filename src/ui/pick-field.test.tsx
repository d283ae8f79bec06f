import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { describe, expect, it, vi } from "vitest";
import { PickField } from "./pick-field";

const CIRCUITS = [
  [
    "Manifold",
    [
      ["gasket", "Manifold gasket"],
      ["booster", "Booster hose"],
      ["pcv", "PCV hose"],
      ["seals", "Injector seals"],
    ],
  ],
  [
    "Crankcase",
    [
      ["cap", "Oil cap"],
      ["cover", "Cover gasket"],
      ["breather", "Breather hose"],
    ],
  ],
  [
    "Metered duct",
    [
      ["duct", "Duct, split or bend"],
      ["clamp", "Duct clamp"],
      ["meter", "MAF"],
    ],
  ],
] as const;

function Picker({ sent = () => {}, few = false }: { sent?: () => void; few?: boolean }) {
  const [value, setValue] = useState("cap");
  return (
    <form onSubmit={sent}>
      <PickField
        label="Where"
        options={[["other", "Another place"]]}
        groups={few ? CIRCUITS.slice(0, 1) : CIRCUITS}
        value={value}
        onPick={setValue}
      />
    </form>
  );
}
const offered = () => [...document.querySelectorAll("[data-id]")].map((o) => o.textContent);
const field = () => screen.getByRole("group", { name: "Where" }).querySelector("button") as HTMLButtonElement;

describe("a long list", () => {
  it("is picked from group by group, and says what is chosen", async () => {
    const hand = userEvent.setup();
    render(<Picker />);
    expect(field().textContent).toBe("Oil cap");
    expect(offered()).toEqual([]);
    await hand.click(field());
    // It opens where the chosen one stands.
    expect(offered()).toEqual(["Oil cap", "Cover gasket", "Breather hose"]);
    await hand.click(screen.getByRole("button", { name: "Manifold" }));
    await hand.click(screen.getByRole("button", { name: "Booster hose" }));
    expect(field().textContent).toBe("Booster hose");
    expect(offered()).toEqual([]);
  });

  it("finds by words of a name or of its group, takes the first by Enter, and sends no form", async () => {
    const sent = vi.fn();
    const hand = userEvent.setup();
    render(<Picker sent={sent} />);
    await hand.click(field());
    const search = screen.getByRole("searchbox", { name: "Search: Where" });
    await hand.type(search, "duct SPLIT");
    expect(offered()).toEqual(["Duct, split or bend"]);
    await hand.clear(search);
    await hand.type(search, "crank");
    expect(offered()).toEqual(["Oil cap", "Cover gasket", "Breather hose"]);
    await hand.clear(search);
    await hand.type(search, "nothing of the sort{Enter}");
    expect(screen.getByText("None found.")).toBeTruthy();
    expect(field().textContent).toBe("Oil cap");
    await hand.clear(search);
    await hand.type(search, "pcv{Enter}");
    expect(field().textContent).toBe("PCV hose");
    expect(sent).not.toHaveBeenCalled();
  });

  it("shows eight at a time", async () => {
    const hand = userEvent.setup();
    const many = Array.from({ length: 19 }, (_, i) => [`n${i}`, `Number ${i}`] as const);
    render(<PickField label="Where" options={many} value="" onPick={() => {}} required />);
    await hand.click(field());
    expect(offered()).toHaveLength(8);
    await hand.click(screen.getByRole("button", { name: "11 more" }));
    expect(offered()).toHaveLength(16);
  });

  it("neither opens nor closes but by hand, whatever is proposed meanwhile", async () => {
    const hand = userEvent.setup();
    const list = (value: string) => (
      <PickField label="Where" options={[]} groups={CIRCUITS.concat(CIRCUITS)} value={value} onPick={() => {}} required />
    );
    const { rerender } = render(list(""));
    expect(offered()).toEqual([]);
    await hand.click(field());
    await hand.type(screen.getByRole("searchbox"), "pcv");
    rerender(list("cap"));
    expect(offered()).toEqual(["PCV hose"]);
  });

  it("is pulled down where it is short", () => {
    render(<Picker few />);
    expect(screen.getByRole("combobox")).toBeTruthy();
  });
});
