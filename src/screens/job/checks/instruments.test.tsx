import { act, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import { CHECK_IDS, CHECKS, type CheckId } from "@/core/checks";
import { COLD_AIR, DIESEL, TURBO, TWO_BANKS, VAPOUR } from "@/core/core.fixture";
import { JOB } from "@/core/journal/journal.fixture";
import type { VehicleRecord } from "@/core/vehicle";
import { load, save } from "../../session/storage";
import { journalOf, onBench } from "../job.fixture";
import { CheckStation } from "../stations/check";

const instrument = (kind: CheckId, facts: VehicleRecord = VAPOUR, refuse?: string) => {
  const journal = journalOf(facts);
  return onBench(journal, <CheckStation wanted={kind} onInstrument={() => {}} />, refuse);
};
const FORMS = CHECK_IDS.filter((id) => CHECKS[id].form && !CHECKS[id].station);
const CARS: Partial<Record<CheckId, VehicleRecord>> = {
  chain: TWO_BANKS,
  "pressure-test": TURBO,
  filter: DIESEL,
  boost: DIESEL,
  egr: DIESEL,
  "secondary-air": COLD_AIR,
};
const carOf = (kind: CheckId): VehicleRecord => CARS[kind] ?? VAPOUR;
const alerts = () => within(screen.getByRole("main")).queryAllByRole("alert");
const said = () => alerts().map((a) => a.textContent);
const box = (name: string | RegExp) => screen.getByRole("textbox", { name });

describe("every instrument", () => {
  it.each(FORMS)("%s says at its fields what is missing, keeps what was typed, and records nothing half", async (kind) => {
    const { user, journal } = instrument(kind, carOf(kind));
    const before = journal.entries.length;
    await user.click(screen.getByRole("button", { name: "Record the check" }));
    expect(journal.entries).toHaveLength(before);
    expect(alerts().length + screen.getAllByRole("status").length).toBeGreaterThan(0);
    for (const alert of alerts()) expect(alert.textContent).not.toMatch(/undefined|NaN|\[object|required field/);
  });

  it.each(FORMS)("%s stands with whatever an older version or a damaged device kept of it", (kind) => {
    for (const kept of [[], "x", 7, null, { instrument: "x", joint: {}, parts: "no", cycles: [null, 3], alone: 1, taps: "x" }]) {
      save(`pelota.draft.${JOB}.${kind}`, kept);
      const { unmount } = instrument(kind, carOf(kind));
      expect(screen.getByRole("heading", { level: 2 }).textContent).toBe(CHECKS[kind].name);
      unmount();
    }
  });
});

/** The boxes in sight that can be typed into, by their names; several of one name by their order. */
function boxes(): ReadonlyMap<string, HTMLInputElement> {
  const all = within(screen.getByRole("main")).queryAllByRole("textbox") as HTMLInputElement[];
  const named = all
    .filter((b) => !b.disabled && !b.readOnly)
    .map((b) => [b.labels?.[0]?.textContent ?? b.ariaLabel ?? "", b] as const);
  return new Map(named.map(([name, b], i) => [`${name} ${named.slice(0, i).filter(([n]) => n === name).length}`, b]));
}
const typeInto = (name: string, text: string) =>
  act(async () => {
    fireEvent.change(boxes().get(name) as HTMLInputElement, { target: { value: text } });
  });

/** Text that may stand in a box: its own example, a gauge that shows nothing with nothing on it, or a likely number. */
function exampleOf(name: string, placeholder: string): string {
  if (/\d/.test(placeholder)) return placeholder.replace(/^e\.g\. /, "");
  if (/^Shows with nothing on it/.test(name)) return "0";
  return /^Start|inHg/.test(name) ? "19.5" : "12";
}

/** Line that is still needed by its words, and leads to no field that is in sight. */
async function deadEnds(): Promise<string[]> {
  const ways = () => [...(screen.queryByText("Still needed:")?.parentElement?.querySelectorAll("button") ?? [])];
  const dead: string[] = [];
  for (const name of ways().map((way) => way.textContent ?? "")) {
    // What is said at a field that was left may have drawn the list anew.
    const way = ways().find((one) => one.textContent === name);
    if (!way) continue;
    way.focus();
    await act(async () => {
      fireEvent.click(way);
    });
    const leads = () => {
      const reached = document.activeElement;
      return reached !== null && reached !== document.body && !ways().includes(reached as HTMLButtonElement);
    };
    // A field that is left is looked at first.
    await waitFor(() => expect(leads()).toBe(true), { timeout: 2000, interval: 5 }).catch(() => dead.push(name));
  }
  return dead;
}

describe("half a value", () => {
  it.each(FORMS)(
    "changes nothing of the shape of %s: what holds something stays in sight, and what is still needed leads to a field",
    async (kind) => {
      instrument(kind, carOf(kind));
      expect(await deadEnds()).toEqual([]);
      const typed = new Map<string, string>();
      const gone: string[] = [];
      // What is answered opens further fields: they are typed into as they come.
      for (let left = 40; left > 0; left--) {
        const next = [...boxes()].find(([name]) => !typed.has(name));
        if (!next) break;
        const [name, { placeholder }] = next;
        const text = exampleOf(name, placeholder);
        // Its first letter, half of it, all of it.
        for (const end of new Set([1, Math.ceil(text.length / 2), text.length])) {
          await typeInto(name, text.slice(0, end));
          const now = boxes();
          for (const [other, value] of typed)
            if (now.get(other)?.value !== value)
              gone.push(`${other} holds ${now.get(other)?.value} after "${text.slice(0, end)}" in ${name}`);
          if (!now.has(name)) gone.push(`${name} went as it was typed into`);
          if (gone.length > 0) break;
        }
        expect(gone).toEqual([]);
        typed.set(name, text);
      }
      expect(await deadEnds()).toEqual([]);
      // These begin with a log.
      expect(typed.size > 0).toBe(kind !== "trims" && kind !== "airflow");
    },
  );
});

describe("a form in hand", () => {
  it("says what is wrong at its field when that is left, puts the focus on the first when recorded, and takes it back", async () => {
    const { user } = instrument("vacuum");
    await user.type(box("Idle speed, rpm"), "12");
    expect(alerts()).toHaveLength(0);
    await user.tab();
    await waitFor(() => expect(said()).toEqual(["RPM is below any idle"]));
    expect(box("Idle speed, rpm")).toHaveProperty("value", "12");
    await user.click(screen.getByRole("button", { name: "Record the check" }));
    await waitFor(() => expect(document.activeElement).toBe(box("Vacuum at idle")));
    await user.clear(box("Idle speed, rpm"));
    await user.type(box("Idle speed, rpm"), "740 rpm");
    await waitFor(() => expect(said()).not.toContain("RPM is below any idle"));
  });

  it("is recorded with what the job knows already, and empty afterwards", async () => {
    const { user, journal } = instrument("vacuum");
    await user.type(screen.getByLabelText("One division of its scale"), "0.5 inHg");
    await user.type(box("Vacuum at idle"), "66 kPa");
    await user.type(box("Idle speed, rpm"), "740");
    await user.click(screen.getByRole("radio", { name: "Sound" }));
    await user.click(screen.getByRole("radio", { name: /Steady/ }));
    expect(screen.getByRole("radio", { name: "Warm" })).toHaveProperty("ariaChecked", "true");
    await user.click(screen.getByRole("button", { name: "Record the check" }));
    await waitFor(() => expect(journal.entries.at(-1)?.kind).toBe("judged"));
    const check = journal.entries.find((e) => e.kind === "check");
    expect(check?.body).toMatchObject({
      check: "vacuum",
      record: { vacuum: { value: 66, unit: "kPa", kind: "vacuum" }, rpm: 740, warm: true, ambient: { value: 1006 } },
    });
    await waitFor(() => expect(box("Vacuum at idle")).toHaveProperty("value", ""));
    expect(load(`pelota.draft.${JOB}.vacuum`)).toBeUndefined();
  });

  it("keeps everything when it could not be recorded, and says so", async () => {
    const { user, journal } = instrument("crankcase", VAPOUR, "the disk is full");
    await user.type(screen.getByLabelText("One division of its scale"), "0.1 hPa");
    await user.type(box(/^Crankcase at idle/), "-3");
    await user.type(box("Idle speed, rpm"), "740");
    await user.click(screen.getByRole("radio", { name: "On, hose sealed round the tube" }));
    const before = journal.entries.length;
    await user.click(screen.getByRole("button", { name: "Record the check" }));
    expect(journal.entries).toHaveLength(before);
    await waitFor(() => expect(said()).toContain("the disk is full"));
    expect(box(/^Crankcase at idle/)).toHaveProperty("value", "-3");
  });

  it("is there again when the page is opened anew, at the part it was begun at, whatever is likelier since", async () => {
    const first = instrument("hold");
    const part = screen.getByRole("combobox", { name: "Part" }) as HTMLSelectElement;
    const proposed = part.value;
    await first.user.type(box("Moves after how many strokes"), "3");
    first.unmount();
    const journal = journalOf(VAPOUR);
    journal.add("story", { complaint: "x", symptoms: ["brake-hard"], verified: "seen" });
    onBench(journal, <CheckStation wanted="hold" onInstrument={() => {}} />);
    expect(box("Moves after how many strokes")).toHaveProperty("value", "3");
    expect(screen.getByRole("combobox", { name: "Part" })).toHaveProperty("value", proposed);
  });

  it("says a gauge is off zero when it is typed", async () => {
    const { user } = instrument("hold");
    await user.type(screen.getByLabelText("One division of its scale"), "0.5 inHg");
    await user.clear(screen.getByLabelText("Shows with nothing on it"));
    await user.type(screen.getByLabelText("Shows with nothing on it"), "2");
    await waitFor(() => expect(said()).toContainEqual(expect.stringContaining("more than one division")));
  });
});
