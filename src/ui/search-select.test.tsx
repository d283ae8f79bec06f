import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { describe, expect, it, vi } from "vitest";
import { SearchSelect } from "./search-select";

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
      <SearchSelect
        label="Where"
        options={[["other", "Another place"]]}
        groups={few ? CIRCUITS.slice(0, 1) : CIRCUITS}
        value={value}
        onPick={setValue}
      />
    </form>
  );
}
const offered = () => screen.getAllByRole("option").map((o) => o.textContent);

describe("a long list", () => {
  it("is narrowed by words of a name or of its circuit, keeps what is chosen, and takes the first by Enter", async () => {
    const sent = vi.fn();
    const hand = userEvent.setup();
    render(<Picker sent={sent} />);
    const search = screen.getByRole("searchbox", { name: "Search: Where" });
    await hand.type(search, "duct SPLIT");
    expect(offered()).toEqual(["Oil cap", "Duct, split or bend"]);
    expect(screen.getByRole("combobox")).toHaveProperty("value", "cap");
    await hand.clear(search);
    await hand.type(search, "crank");
    expect(offered()).toEqual(["Oil cap", "Cover gasket", "Breather hose"]);
    await hand.clear(search);
    await hand.type(search, "pcv{Enter}");
    expect(screen.getByRole("combobox")).toHaveProperty("value", "pcv");
    expect(search).toHaveProperty("value", "");
    expect(offered()).toHaveLength(11);
    await hand.type(search, "nothing of the sort{Enter}");
    expect(screen.getByText("None found")).toBeTruthy();
    expect(screen.getByRole("combobox")).toHaveProperty("value", "pcv");
    expect(sent).not.toHaveBeenCalled();
  });

  it("has no search where it is short", () => {
    render(<Picker few />);
    expect(screen.queryByRole("searchbox")).toBeNull();
  });
});
