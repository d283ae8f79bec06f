import { describe, expect, it } from "vitest";
import { inEnglish } from "./terms";

describe("the English of a shop", () => {
  it("is said as the shop chose, large and small, and only whole words", () => {
    expect(inEnglish("Petrol 1.6 L, smells of petrol under the bonnet", "american")).toBe(
      "Gasoline 1.6 L, smells of gasoline under the hood",
    );
    for (const kept of ["petroleum", "manometre gauge", "centred", "P0171"]) expect(inEnglish(kept, "american")).toBe(kept);
    expect(inEnglish("Petrol", "british")).toBe("Petrol");
  });
});
