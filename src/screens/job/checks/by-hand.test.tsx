import { act, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { CheckId } from "@/core/checks";
import { TURBO, TWO_BANKS, VAPOUR } from "@/core/core.fixture";
import { foldJob, type JobState } from "@/core/journal";
import { SHOP } from "@/core/journal/journal.fixture";
import { CARS } from "../../../../demo/cars";
import { airflowOf, crankcaseOf, holdOn, valveWith } from "../../../../demo/readings";
import { decayOf, pulldownOf } from "../../../../demo/tank";
import { journalOf, onBench } from "../job.fixture";
import { CheckStation } from "../stations/check";

// Whole checks taken by hand on cars whose fault is known: what is typed is what the physics shows.
const opened = (kind: CheckId, facts: Parameters<typeof journalOf>[0]) => {
  const journal = journalOf(facts);
  return onBench(journal, <CheckStation wanted={kind} onInstrument={() => {}} />);
};
/** Does something, and lets all that follows from it be drawn. */
const done = (deed: () => unknown) =>
  act(async () => {
    deed();
  });
const main = () => within(screen.getByRole("main"));
const soFar = () => screen.getByRole("region", { name: "Verdict so far" }).textContent;
const box = (name: string | RegExp) => main().getByRole("textbox", { name });
const fill = (name: string | RegExp, value: string | number) =>
  done(() => fireEvent.change(box(name), { target: { value: String(value) } }));
const pick = (name: string | RegExp) => done(() => fireEvent.click(main().getByRole("radio", { name })));
const pickOf = (group: string, name: string) =>
  done(() => fireEvent.click(within(main().getByRole("radiogroup", { name: group })).getByRole("radio", { name })));
const tick = (name: string | RegExp) => done(() => fireEvent.click(main().getByRole("checkbox", { name })));
const press = (name: string | RegExp) => done(() => fireEvent.click(screen.getByRole("button", { name })));
const gauge = (division: string) =>
  done(() => fireEvent.change(screen.getByLabelText("One division of its scale"), { target: { value: division } }));
/** Chooses from a list by the words or the id of an option, pulled down or in its keys. */
const choose = async (name: string, option: string) => {
  const list = main().queryByRole("combobox", { name }) as HTMLSelectElement | null;
  if (list) {
    const value = [...list.options].find((o) => o.text === option || o.value === option)?.value;
    return done(() => fireEvent.change(list, { target: { value } }));
  }
  const group = main().getByRole("group", { name });
  const field = within(group);
  if (!field.queryByRole("searchbox")) await done(() => fireEvent.click(field.getAllByRole("button")[0] as HTMLElement));
  await done(() =>
    fireEvent.change(field.getByRole("searchbox"), { target: { value: option.replaceAll("-", " ").replace(/[^\w ]/g, "") } }),
  );
  const key = [...group.querySelectorAll<HTMLElement>("[data-id]")].find(
    (k) => k.textContent === option || k.dataset.id === option,
  );
  if (!key) throw new Error(`${name} has no ${option}`);
  await done(() => fireEvent.click(key));
};
const stateOf = (journal: { entries: Parameters<typeof foldJob>[0] }): JobState =>
  foldJob(journal.entries, SHOP, Date.parse("2026-03-02T20:00:00Z"));
const recorded = async (page: ReturnType<typeof opened>) => {
  const before = page.journal.entries.length;
  await page.user.click(screen.getByRole("button", { name: "Record the check" }));
  await waitFor(() => expect(page.journal.entries.length).toBeGreaterThan(before));
  return stateOf(page.journal);
};

afterEach(() => void vi.useRealTimers());

/** A valve's two states, as they were read. */
async function bothStates({ rest, energised }: ReturnType<typeof valveWith>) {
  for (const [name, state] of [
    ["At rest", rest],
    ["Energised", energised],
  ] as const) {
    await fill(`${name}: Put on, inHg`, state.start);
    await fill(`${name}: Left, inHg`, state.end);
    await fill(`${name}: After, s`, state.seconds);
  }
}

describe("by hand", () => {
  it("an actuator pipe holds until it is wiggled", async () => {
    vi.useFakeTimers({ toFake: ["Date"], now: Date.parse("2026-03-02T09:00:00Z") });
    const read = holdOn("flap-pipe", "line", { still: 6e-6, wiggled: 60e-6 }, 7);
    const page = opened("hold", CARS.godwit.facts);
    await choose("Part", "Flap actuator pipe");
    await gauge("0.1 inHg");
    const take = async (samples: readonly (readonly [number, number])[]) => {
      const start = Date.now();
      for (const [t, v] of samples) {
        vi.setSystemTime(start + t * 1000);
        await fill("Gauge, inHg vacuum", v);
        await press("Take reading");
      }
    };
    await take(read.still);
    expect(soFar()).toMatch(/not wiggled yet/i);
    await pick("While wiggled");
    await take(read.wiggled);
    expect(soFar()).toContain("Flap actuator pipe holds until it is wiggled: intermittent");
    const state = await recorded(page);
    expect(state.checks[0]?.record).toMatchObject({ joint: "flap-pipe", still: read.still, wiggled: read.wiggled });
    expect(state.suspects[0]?.cause.id).toBe("flap-pipe");
  });

  it("a purge solenoid clicks and leaks; fed 12 V with its plug on proves nothing; the new one passes on the bench", async () => {
    const page = opened("valve", VAPOUR);
    await choose("Valve", "Purge valve");
    await gauge("0.1 inHg");
    await pick(/^12 V from a fused lead/);
    expect(main().getAllByText(/never feed voltage back/i).length).toBeGreaterThan(0);
    await bothStates(valveWith("purge-valve", 0.9e-3, "fitted", 3));
    // Nobody said where its plug was: nothing is said of it, it is asked for.
    expect(screen.getByRole("status").textContent).toMatch(/plug was off the car's loom/);
    await pickOf("Its plug", "Still on");
    expect(soFar()).toMatch(/Void — proves nothing.*plug/);
    await pickOf("Its plug", "Off the car's loom");
    await pick("It clicks");
    expect(soFar()).toMatch(/Purge valve leaks at rest, where it must hold.*proves the coil, not the seat/i);
    // What came off for it is listed with it, unplugged for the 12 V and all; the new one on the bench takes nothing off.
    const off = ["hose off at Purge valve", "Purge valve unplugged"];
    expect((await recorded(page)).offCar.map((i) => i.what)).toEqual(off);
    await choose("Valve", "Purge valve");
    await gauge("0.1 inHg");
    await pick("The new one, on the bench");
    await bothStates(valveWith("purge-valve", 5e-6, "new", 4));
    const state = await recorded(page);
    expect(state.checks.map((c) => [c.verdict.outcome, c.onBench])).toEqual([
      ["fail", false],
      ["pass", true],
    ]);
    expect(state.offCar.map((i) => i.what)).toEqual(off);
    expect(main().getAllByText("New purge valve holds where it must and passes where it must").length).toBeGreaterThan(0);
    expect(state.suspects[0]?.cause.id).toBe("purge-valve");
  });

  it("a charge side is tested no higher than what binds; where air comes out is named with its pressure", async () => {
    const page = opened("pressure-test", TURBO);
    await gauge("0.02 bar");
    expect(main().getByText(/at most 1\.200 bar gauge, by the shop's ceiling/)).toBeDefined();
    await fill("The engine's maximum boost, gauge", "1.0");
    await fill("Adapter and hose are rated for, gauge", "20 psi");
    expect(main().getByText(/at most 1\.000 bar gauge, by the engine's maximum boost/)).toBeDefined();
    // Beyond it is said at once, and proves nothing.
    await fill("Stop, gauge", "1.3 bar");
    expect(main().getByRole("alert").textContent).toMatch(/^Let it down: at most 1\.000 bar/);
    expect(soFar()).toMatch(/Void — proves nothing.*is above the engine's maximum boost/);
    await fill("Stop, gauge", "0.5 bar");
    await press("Next stop");
    await done(() =>
      fireEvent.change(main().getAllByRole("textbox", { name: "Stop, gauge" })[1] as HTMLElement, { target: { value: "1 bar" } }),
    );
    expect(soFar()).toMatch(/nobody said yet whether every joint was listened to/);
    await press("Air comes out here");
    await choose("Where", "Cooler end tank");
    // How it showed is seen, and stands for nothing before.
    expect(screen.queryByRole("region", { name: "Verdict so far" })).toBeNull();
    for (const sign of ["Heard", "Felt", "Soap bubbles", "Smoke"])
      expect(main().getByRole("radio", { name: sign })).toHaveProperty("ariaChecked", "false");
    await pickOf("How it showed", "Soap bubbles");
    await fill("It began at, gauge", "0.5 bar");
    expect(soFar()).toMatch(
      /Air escapes at cooler end tank \(soap bubbles, from 0\.500 bar gauge on\).*smoke could not have shown it/,
    );
    const state = await recorded(page);
    expect(state.checks[0]).toMatchObject({ place: "hot-pipe-clamp", verdict: { outcome: "fail" } });
    expect(state.suspects[0]?.cause.id).toBe("cooler-tank");
    expect(state.proof.owed.find((o) => o.atom === "tight@cooler-tank")?.missing).toBeDefined();
  });

  it("a valve that misses one command in ten is faulty, and a hole is told where the gas space is known", async () => {
    opened("valve", VAPOUR);
    await choose("Valve", "Purge valve");
    await gauge("0.1 inHg");
    const read = valveWith("purge-valve", 5e-6, "fitted", 41);
    await bothStates(read);
    await fill("Trapped volume between pump and part, if known", "60 mL");
    expect(soFar()).toMatch(/^Works.*Loss as one sharp-edged hole/);
    await press("Count cycles, cold");
    expect(screen.getByText("Shut: say how many times")).toBeDefined();
    for (const [label, count] of [
      ["Shut", 10],
      ["Passed", 9],
      ["Released", 10],
    ] as const)
      await fill(`cold: ${label}, times`, count);
    expect(soFar()).toContain("Purge valve passed only 9 of 10 times, cold");
  });

  it("a dirty filter is told from a disturbed duct by what the engine breathes", async () => {
    const { engine, facts } = CARS.tern;
    const points = async (reading: ReturnType<typeof airflowOf>) => {
      await pick("Typed by hand");
      for (const p of reading.points) {
        await pick(p.state === "idle" ? "Idle" : "Wide open throttle");
        await fill("Engine speed, rpm", p.rpm);
        await fill("MAF", `${p.maf?.value} g/s`);
        await fill("Manifold pressure, absolute", `${p.map?.value} kPa`);
        await press("Take this point");
      }
    };
    const page = opened("airflow", facts);
    await pick("Typed by hand");
    await press("Take this point");
    expect((await main().findAllByText("Type what the MAF reads")).length).toBeGreaterThan(0);
    await points(airflowOf(engine, { intakeBlock: 30 }, 5));
    expect(soFar()).toMatch(/something before the manifold restricts it.*filter first, it is the cheap thing/i);
    expect((await recorded(page)).suspects[0]?.cause.id).toBe("filter-clogged");
    await points(airflowOf(engine, { ductHole: 34e-3 }, 6));
    expect(soFar()).toMatch(/The MAF reads low.*a disturbed duct does this/i);
  });

  it("too much suction in the crankcase, once its tube is said to be sealed", async () => {
    const reading = crankcaseOf(2.2e-3, 3.4e-3, 9);
    opened("crankcase", CARS.gannet.facts);
    await gauge("0.1 hPa");
    await fill(/^Crankcase at idle/, `${reading.idle.value} hPa`);
    await fill("Idle speed, rpm", "740 rpm");
    expect(screen.getByRole("status").textContent).toMatch(/oil cap was on/);
    await pick("Open");
    expect(soFar()).toContain("Void — proves nothing");
    await pick("On, hose sealed round the tube");
    expect(soFar()).toContain("Too much suction");
  });

  it("a decay is typed as a table: a line that cannot be read is named, a short hold is not sure yet, a reference settles it", async () => {
    const read = decayOf(CARS.shearwater, { seed: 5, entry: "service-port", reference: 0.508e-3 });
    const table = (samples: readonly (readonly [number, number])[]) => samples.map(([t, p]) => `${t} ${p}`).join("\n");
    const page = opened("decay", CARS.shearwater.facts);
    page.journal.add("codes", {
      codes: [{ code: "P0456", status: "stored", criteria: { leak: { value: 0.508, unit: "mm" } } }],
    });
    page.unmount();
    const again = onBench(page.journal, <CheckStation wanted="decay" onInstrument={() => {}} />);
    await gauge("0.01 inH2O");
    await fill("Fuel level, % of the tank", "45 %");
    await fill("Held before shut-off, s", 20);
    const readings = (name: string) => within(main().getByRole("radiogroup", { name }));
    await done(() => fireEvent.click(readings("Decay: readings").getByRole("radio", { name: "Typed table" })));
    await fill(/^Seconds and pressure in inH2O gauge/, "0 10,00\n5 9,9x");
    expect(main().getByText(/Line 2: type seconds and pressure/)).toBeDefined();
    await fill(/^Seconds and pressure in inH2O gauge/, table(read.samples));
    expect(soFar()).toMatch(/Not sure yet.*held only 20 s before shut-off/i);
    await fill("Held before shut-off, s", 120);
    await tick(/^Once more with a reference hole open/);
    await done(() => fireEvent.click(readings("With the reference hole: readings").getByRole("radio", { name: "Typed table" })));
    const second = main().getAllByRole("textbox", { name: /^Seconds and pressure/ })[1] as HTMLElement;
    await done(() => fireEvent.change(second, { target: { value: table(read.reference?.samples ?? []) } }));
    expect(soFar()).toMatch(/Leaks like a 0\.(3|4)\d mm hole: smaller than must be caught/);
    expect((await recorded(again)).checks[0]).toMatchObject({ check: "decay", verdict: { outcome: "fail" } });
  });

  it("a vent stuck open is told from a gross leak by pulling down again with the vent plugged", async () => {
    const trace = async (car: Parameters<typeof pulldownOf>[0], vent: "command" | "plug") => {
      const read = pulldownOf(car, { seed: 61, vent });
      if (vent === "plug") await pick("A plug by hand");
      await fill("Fuel level, % of the tank", 45);
      await pick("Typed table");
      await fill(/^Seconds and pressure in Pa/, read.points.map(([t, p]) => `${t} ${p}`).join("\n"));
      await fill("Vent shut, s", read.ventShutAt);
      await fill("Purge open, s", read.purgeOpenAt);
      await fill("Purge shut, s", read.purgeShutAt);
      await fill("Vent open again, s", read.ventOpenAt);
      await pick("Idled the whole time, foot off");
    };
    const page = opened("pulldown", CARS.garganey.facts);
    await trace(CARS.garganey, "command");
    expect(soFar()).toMatch(/the vent command timed out 44 s before/i);
    await fill("Vent command times out after, s", 90);
    expect(soFar()).toContain("No pull-down with purge open and the vent commanded shut");
    await recorded(page);
    await trace(CARS.garganey, "plug");
    expect(soFar()).toContain("Pulls down and holds with the vent plugged by hand");
    expect((await recorded(page)).suspects[0]?.cause.id).toBe("vent-open");
  });

  it("a runner-flap chain stops at its dead control wire", async () => {
    const page = opened("chain", TWO_BANKS);
    await gauge("0.1 inHg");
    await fill("Vacuum at the solenoid's inlet", 18.6);
    await fill("Battery", 14.1);
    await fill("Across the solenoid, commanded", 0.42);
    expect(soFar()).toMatch(/broken at “voltage across the solenoid, commanded”/);
    await pick("It moves");
    expect(soFar()).toMatch(/fed 12 V it moves/i);
    expect((await recorded(page)).checks[0]?.verdict.observation).toBe("chain-broken:flap-circuit");
  });

  it("a spot is probed by eye with the short-term trim alone; what is missing is said at its field", async () => {
    const page = opened("probe", VAPOUR);
    await pick("Eye, typed");
    await press("Take this spot");
    expect(await main().findByText("Type the trim after")).toBeDefined();
    await pick("Short-term alone");
    await fill("Short-term trim before, %", "12 %");
    await fill("Short-term trim after, %", "1 … 3");
    await fill("Speed before, rpm", "740");
    await fill("Speed after, rpm", "800 rpm");
    await press("Take this spot");
    await pick("Closed");
    expect(soFar()).toMatch(/^Reacts/);
    const { checks } = await recorded(page);
    expect(checks[0]?.record).toMatchObject({
      taps: [{ typed: { shows: "short", trimBefore: 12, trimAfter: 2, rpmBefore: 740, rpmAfter: 800 } }],
      closedLoop: true,
    });
  });

  it("a shared supply is told apart branch by branch: what is shut off is named", async () => {
    vi.useFakeTimers({ toFake: ["Date"], now: Date.parse("2026-03-02T09:00:00Z") });
    const page = opened("hold", CARS.kittiwake.facts);
    await gauge("0.1 inHg");
    const watched = async (watch: string, end: number) => {
      await pick(watch);
      await fill("Gauge, inHg vacuum", 20);
      await press("Take reading");
      vi.setSystemTime(Date.now() + 60_000);
      await fill("Gauge, inHg vacuum", end);
      await press("Take reading");
    };
    const hold = async (part: string, end: number) => {
      await choose("Part", part);
      await watched("Left alone", end);
      await watched("While wiggled", end);
    };
    await hold("flap-line", 19.8);
    const branches = within(main().getByRole("toolbar", { name: /Branches shut off/ }));
    await done(() => fireEvent.click(branches.getByRole("button", { name: "Boost solenoid" })));
    expect(soFar()).toMatch(/with Boost solenoid shut off/);
    expect((await recorded(page)).checks.at(-1)?.verdict.outcome).toBe("pass");
  });

  it("a tail's gases and the ECU's own λ send a false lean to the exhaust", async () => {
    const page = opened("exhaust-gas", CARS.eider.facts);
    for (const [gas, idle] of [
      ["CO", 0.05],
      ["CO₂", 13.9],
      ["O₂", 2.2],
      ["HC", 30],
    ] as const)
      await fill(new RegExp(`^${gas} at idle`), idle);
    await fill("ECU's own λ at idle", "1.0");
    await pickOf("Probe", "Deep in the pipe");
    await pickOf("Loop", "Closed");
    await pick("Passed");
    expect(soFar()).toMatch(/excess air at idle, and not with the mixture/);
    expect((await recorded(page)).suspects[0]?.cause.trait).toBe("exhaust-air");
  });

  it("a secondary air's command is counted: what is read after the tool let go proves nothing", async () => {
    vi.useFakeTimers({ toFake: ["Date"], now: Date.parse("2026-03-02T09:00:00Z") });
    const page = opened("secondary-air", CARS.teal.facts);
    await pickOf("The pump", "Runs, air felt");
    await pick("Yes: re-armed");
    await pick("Soaped while it ran");
    await pickOf("Engine", "Running");
    await pickOf("Valve shut again", "Quiet and cool");
    await press("Command it now");
    await waitFor(() => expect(page.journal.entries.at(-1)?.kind).toBe("displaced"));
    vi.setSystemTime(Date.now() + 42_000);
    await pickOf("Oxygen sensor, valve open", "Went lean");
    await fill("After, or watched for, s", 3);
    expect(soFar()).toMatch(/after the command had timed out/);
    // A second command wants the tool armed anew.
    await press("Released: Secondary-air pump commanded on");
    await press("Command it now");
    expect(main().getByRole("radio", { name: "Yes: re-armed" })).toHaveProperty("ariaChecked", "false");
    await pick("Yes: re-armed");
    vi.setSystemTime(Date.now() + 42_000);
    expect((await recorded(page)).checks.at(-1)?.verdict.outcome).toBe("void");
  });

  it("ports are graded from both sides with the tool's depth; after cleaning the same ones are asked for", async () => {
    const journal = journalOf(CARS.smew.facts);
    journal.add("codes", { codes: [{ code: "P0410", status: "current" }] });
    const page = onBench(journal, <CheckStation wanted="borescope" onInstrument={() => {}} />);
    await choose("Passage", "air-valve");
    const graded = (port: string, side: string, share: number) =>
      done(() =>
        fireEvent.change(screen.getByRole("slider", { name: `${port}, ${side}` }), { target: { value: String(share) } }),
      );
    expect(main().getAllByText("not graded yet")).toHaveLength(2);
    await graded("Port 1", "straight", 20);
    const depth = box("Port 1, tool in, mm");
    await done(() => fireEvent.change(depth, { target: { value: "182" } }));
    await done(() => fireEvent.blur(depth));
    await press("Add port");
    for (const side of ["straight", "from the side"]) await graded("Port 2", side, 95);
    const found = await recorded(page);
    expect(found.checks.at(-1)?.verdict.outcome).toBe("fail");
    expect(found.suspects[0]?.cause.trait).toBe("air-ports");
    await choose("Passage", "air-valve");
    await pickOf("When", "After cleaning");
    await press("The same ports as last time: Port 1, Port 2");
    expect((box("Port 1, tool in, mm") as HTMLInputElement).value).toBe("182");
    for (const port of ["Port 1", "Port 2"]) for (const side of ["straight", "from the side"]) await graded(port, side, 95);
    expect((await recorded(page)).checks.at(-1)?.verdict.outcome).toBe("pass");
  });

  it("smoke through an EGR seat says nothing at the tail alone, where valves overlap; at its own pipe it does", async () => {
    const page = opened("egr", CARS.scoter.facts);
    for (const [name, value] of [
      ["Commanded shut: speed, rpm", 1500],
      ["MAF, shut", 16.1],
      ["Commanded open: speed, rpm", 1510],
      ["MAF, open", 11.9],
    ] as const)
      await fill(name, value);
    await pickOf("Seat, by smoke from the manifold", "Smoke comes through");
    expect(soFar()).toMatch(/through valves that overlap/);
    await pickOf("Watched", "At its own pipe, opened behind it");
    expect(soFar()).toMatch(/nothing is seen outside/);
    expect((await recorded(page)).suspects[0]?.cause.name).toMatch(/EGR valve leaks by/);
  });

  it("a part on the bench is pressed no further than it bears, and says nothing of the car", async () => {
    const page = opened("bench-part", CARS.razorbill.facts);
    await gauge("0.02 bar");
    await fill("Part", "charge-air cooler");
    await pickOf("It is", "The old one, taken off");
    await pickOf("Tried by", "Under water");
    await fill("Pressure on it, gauge", "1.5 bar");
    await fill("Part, plugs and hose are rated for, gauge", "1.2 bar");
    await fill("Watched for, s", 60);
    await pick("All plugged, no plug leaks");
    await fill("Came out at", "the crimp of its left end tank");
    expect(main().getAllByText(/bear|above/i).length).toBeGreaterThan(0);
    const before = stateOf(page.journal).suspects.map((s) => [s.cause.id, s.odds]);
    await fill("Pressure on it, gauge", "0.8 bar");
    const state = await recorded(page);
    expect(state.checks.at(-1)?.verdict.outcome).toBe("fail");
    expect(state.suspects.map((s) => [s.cause.id, s.odds])).toEqual(before);
  });
});
