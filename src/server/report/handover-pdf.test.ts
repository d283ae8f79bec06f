import { getDocument } from "pdfjs-dist/legacy/build/pdf.mjs";
import { describe, expect, it } from "vitest";
import { foldJob, handoverSheet } from "@/core/journal";
import { NOW, proved, SHOP } from "@/core/journal/journal.fixture";
import { printable } from "./fonts";
import { handoverPdf } from "./handover-pdf";

/** All letters of a PDF in their order; between faces a reader tells no spaces. */
async function textOf(pdf: Buffer): Promise<string> {
  const document = await getDocument({ data: new Uint8Array(pdf) }).promise;
  const pages = Array.from(
    { length: document.numPages },
    async (_, i) => (await (await document.getPage(i + 1)).getTextContent()).items,
  );
  return (await Promise.all(pages))
    .flat()
    .map((item) => ("str" in item ? item.str : ""))
    .join("")
    .replace(/\s/g, "");
}

describe("a text on paper", () => {
  it.each([
    "Hose, split: 12 mm",
    "Grün, naïve, señal, Ærø",
    "Łukasz Żółć, Dvořák, Šárka, ğüşı, ő",
    "Ελένη Παπαδοπούλου",
    "Ирина Щукина, Їжак",
    "Nguyễn",
  ])("is drawn as it is: %s", (text) => {
    expect(printable(text)).toBe(text);
  });

  it("shows where letters cannot be drawn, once a run, and never as something else", () => {
    expect(printable("漢字 hose 😀😀!")).toBe("[?] hose [?]!");
    expect(printable("שלום")).toBe("[?]");
    expect(printable("a\u0301")).toBe("á");
    expect(printable("≈ 2 − 1")).toBe("about 2 - 1");
  });
});

describe("the handover page as PDF", () => {
  it("holds what was typed in Latin, extended Latin, Greek and Cyrillic, and a placeholder for the rest", async () => {
    const { job } = proved();
    job.add("story", { complaint: "Łukasz: hiss. Ελένη: συρίζει. Ирина: шипит. 漢字!", symptoms: [], verified: "seen" });
    const state = foldJob(job.entries, SHOP, NOW);
    const text = await textOf(
      await handoverPdf({ number: 7, state, shopName: "Warsztat Śruba", customer: { name: "Żaneta Ωmega" } }),
    );
    for (const part of ["Łukasz: hiss.", "Ελένη: συρίζει.", "Ирина: шипит.", "[?]!", "Warsztat Śruba", "for Żaneta Ωmega"])
      expect(text).toContain(part.replace(/\s/g, ""));
  });

  it("of a practice case says that it is about no real car, and of a real one says nothing of it", async () => {
    const state = foldJob(proved().job.entries, SHOP, NOW);
    const paper = async (more: object) =>
      textOf(await handoverPdf({ number: 7, state: { ...state, ...more }, shopName: "Ferrowick", customer: undefined }));
    expect(await paper({ practice: "3000-17Y0" })).toContain("thispageisaboutnorealone");
    expect(await paper({})).not.toMatch(/Practice/);
  });

  it("says what the page says, line by line", async () => {
    const state = foldJob(proved().job.entries, SHOP, NOW);
    const text = await textOf(await handoverPdf({ number: 7, state, shopName: "Ferrowick", customer: undefined }));
    const writing = { day: (iso: string) => iso.slice(0, 4), reading: () => "" };
    const { blocks, footnote } = handoverSheet(state, { number: 7, shop: "Ferrowick" }, writing);
    const lines = blocks.flatMap((b) => b.lines.flatMap((l) => [l.strong ?? "", ...l.text.split(/≈ |\d{4}/)]));
    for (const line of [...lines, footnote]) expect(text).toContain(printable(line).replace(/\s/g, ""));
    expect(lines.length).toBeGreaterThan(8);
  });
});
