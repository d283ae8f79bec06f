import type { BrowserContext, Locator, Page } from "@playwright/test";
import { CARS, type DemoCar, repaired } from "../demo/cars";
import { recordBoost } from "../demo/charge";
import { PULL, recordDrive, writeLog } from "../demo/drive";
import type { HiddenEngine } from "../demo/engine";
import { decayOf } from "../demo/tank";
import { pick } from "../e2e/steps";

/** Work of a hand, counted in the page itself: keys and places tapped, fields typed into, and letters in them. */
export interface Tally {
  taps: number;
  fields: number;
  letters: number;
}
const zero = (): Tally => ({ taps: 0, fields: 0, letters: 0 });

/** Seconds that this takes by the keystroke-level model (Card, Moran and Newell 1980): a thought and a pointing each, 0.28 s a letter. */
export const secondsOf = ({ taps, fields, letters }: Tally): number => (taps + fields) * (1.35 + 1.1) + letters * 0.28;

const COUNTED = "pelotaCounted";

/** Counts in every page of a device from now on. */
export async function counted(context: BrowserContext): Promise<Tally> {
  const tally = zero();
  await context.exposeBinding(COUNTED, (_, what: keyof Tally, n: number) => {
    tally[what] += n;
  });
  // The compiler names functions by a helper of its own, which the page does not have.
  await context.addInitScript({ content: "globalThis.__name = (f) => f;" });
  await context.addInitScript((name) => {
    const count = (what: string, n = 1) => (Reflect.get(window, name) as (what: string, n: number) => void)(what, n);
    let typed: EventTarget | null = null;
    let length = 0;
    addEventListener("click", (e) => e.isTrusted && count("taps"), true);
    addEventListener("keydown", (e) => e.isTrusted && (e as KeyboardEvent).key === "Enter" && count("taps"), true);
    addEventListener(
      "input",
      (e) => {
        const field = e.target as HTMLInputElement;
        if (field.matches("[type=radio], [type=checkbox], [type=file], select")) return;
        if (field !== typed) count("fields");
        // A field that is filled again says so once for each way it is told; only what it gained was typed.
        const gained = field === typed ? field.value.length - length : field.value.length;
        if (gained !== 0) count("letters", Math.max(1, gained));
        typed = field;
        length = field.value.length;
      },
      true,
    );
    addEventListener(
      "change",
      (e) => {
        const field = e.target as HTMLElement;
        // A list is pulled down and let go; a file is picked among files.
        if (field.matches("select")) count("taps", 2);
        if (field.matches("[type=file]")) count("taps", 2);
      },
      true,
    );
  }, COUNTED);
  return tally;
}

/** A job while it is played: its page, and what was counted when it first told something. */
class Job {
  first: Tally | undefined;
  readonly begun: Tally;
  constructor(
    readonly page: Page,
    readonly tally: Tally,
  ) {
    this.begun = { ...tally };
  }
  since = (): Tally => ({
    taps: this.tally.taps - this.begun.taps,
    fields: this.tally.fields - this.begun.fields,
    letters: this.tally.letters - this.begun.letters,
  });
  readonly work = () => this.page.getByRole("main", { name: "Now" });
  key = (name: string | RegExp) => this.page.getByRole("button", { name, ...(typeof name === "string" ? { exact: true } : {}) });
  tap = (what: Locator | string | RegExp) =>
    (typeof what === "string" || what instanceof RegExp ? this.key(what) : what).first().click();
  radio = (group: string, name: string) =>
    this.tap(this.page.getByRole("radiogroup", { name: group }).getByRole("radio", { name, exact: true }));
  fill = (label: string | RegExp, value: string) =>
    this.page
      .getByRole("textbox", { name: label, ...(typeof label === "string" ? { exact: true } : {}) })
      .first()
      .fill(value);
  station = (name: string) => this.tap(this.page.getByRole("navigation", { name: "Stations" }).getByRole("button", { name }));
  /** The first sentence that says something of the car. */
  async answered() {
    const verdict = this.page.getByRole("region", { name: /^Verdict (so far|of this run)$/ });
    await verdict.or(this.key("Set the conditions")).first().waitFor();
    await this.air();
    await verdict.first().waitFor();
    this.first ??= this.since();
  }
  pass = (minutes: number) => this.page.clock.fastForward(minutes * 60_000);

  /** From the board: which car, what the customer says, what the scan tool printed. */
  async open(asked: {
    registration: string;
    /** A car of its kind was here before: its report has a VIN that is alike */
    like?: DemoCar;
    complaint?: string;
    codes?: readonly string[];
    litres?: string;
  }) {
    const { page } = this;
    await page.goto("/");
    await this.tap(page.getByRole("link", { name: "New job" }));
    await this.fill("Registration", asked.registration);
    if (asked.complaint) await this.fill("Complaint, in the customer's words", asked.complaint);
    else await this.tap(page.getByRole("radio", { name: "An inspection, no complaint" }));
    if (asked.like) {
      const vin = `${asked.like.facts.vin?.slice(0, 11)}9${asked.registration.replace(/\D/g, "").padStart(5, "0")}`;
      const report = [`VIN: ${vin}`, "Module: Engine", ...(asked.codes ?? ["no codes"])].join("\n");
      await this.fill(/^Scan report or OBD log/, report);
      // It is pasted, not typed.
      await this.page.waitForTimeout(50);
      this.tally.letters -= report.length - 1;
      // The one kind that is alike by its VIN fills itself in.
      const offered = page.getByRole("list", { name: "Cars of this shop" }).getByRole("button");
      const filled = this.key(/^Not like /);
      await offered.or(filled).first().waitFor();
      if (await offered.count()) await this.tap(offered);
    } else await this.fill("Engine displacement", asked.litres ?? "1.6");
    await this.tap(asked.like ? "Open at the best check" : "Open the job");
    await page.getByRole("heading", { name: /^Job \d+$/ }).waitFor();
    // It lands at the instrument, where the best check is one.
    if (asked.like)
      await this.key("Another instrument")
        .waitFor({ timeout: 2000 })
        .catch(() => {});
  }
  /** An instrument off the shelf, with the bay's air confirmed where that is asked. */
  async take(name: string) {
    if ((await this.key("Another instrument").count()) === 0) await this.station("Check");
    const head = this.work().getByRole("heading", { name, level: 2, exact: true });
    await this.key("Another instrument").waitFor();
    const atHand = this.work().getByRole("button", { name, exact: true });
    if ((await head.count()) === 0 && (await atHand.count()) > 0) {
      await this.tap(atHand);
      await head.waitFor();
    } else if ((await head.count()) === 0) {
      await this.tap("Another instrument");
      await this.tap(
        this.page
          .getByRole("dialog")
          .getByRole("button")
          .filter({ has: this.page.getByText(name, { exact: true }) }),
      );
      await head.waitFor();
    }
    await this.ready();
  }
  /** Cautions acknowledged, the bay's air confirmed, where either is asked. */
  async ready() {
    await this.page.waitForTimeout(250);
    if ((await this.key("Understood").count()) > 0) await this.tap("Understood");
    await this.air();
  }
  /** The bay's air: confirmed as it was today, or set, where the instrument asks for it before anything else. */
  async air() {
    if ((await this.key("Set the conditions").count()) === 0) return;
    const still = this.key(/^Bay still /);
    if ((await still.count()) > 0) {
      await this.tap(still);
      return still.waitFor({ state: "detached" });
    }
    await this.tap("Set the conditions");
    if ((await this.page.getByRole("textbox", { name: "Bay temperature" }).inputValue()) === "") {
      await this.fill("Ambient pressure, absolute", "1006 hPa");
      await this.fill("Bay temperature", "17");
    }
    await this.tap("Record conditions");
    await this.page.getByRole("dialog").waitFor({ state: "detached" });
  }
  async log(name: string, bytes: Uint8Array) {
    const input = this.page.getByLabel("Scan-tool log").first();
    await input.setInputFiles({ name, mimeType: "text/csv", buffer: Buffer.from(bytes) });
    const read = this.key("Read the log with these columns");
    const again = this.key("Change how the columns are understood");
    await read.or(again).first().waitFor();
    if (await read.isVisible()) await this.tap(read);
    await again.waitFor();
  }
  /** What a log of boost does not say: whether the engine was warm, and exhaust led back. */
  async boostSaid() {
    for (const [group, name] of [
      ["Engine", "Warm"],
      ["EGR meanwhile", "Shut"],
    ] as const) {
      const key = this.page.getByRole("radiogroup", { name: group }).getByRole("radio", { name, exact: true });
      if ((await key.count()) > 0 && !(await key.isChecked())) await this.tap(key);
    }
  }
  async survey(engine: HiddenEngine, seed: number) {
    await this.log("drive.csv", writeLog(recordDrive(engine, seed), "comma", false));
    await this.answered();
    await this.tap("Record the check");
  }
  /** A smoke run: the machine proved once a session, the ball read while it settles, then what was seen. */
  async smoke(play: { litres: number; seen?: string; arrivals?: readonly string[]; set?: () => Promise<void>; fuel?: string }) {
    const { page } = this;
    await play.set?.();
    if (play.fuel && (await page.getByLabel("Fuel level, % of the tank").inputValue()) === "")
      await this.fill("Fuel level, % of the tank", play.fuel);
    await this.radio("Gauge and ball before the hose goes on", "Stand at zero").catch(() =>
      this.tap(page.getByRole("radio", { name: "Stand at zero" })),
    );
    const proved = this.key(/^Hose on: proved at/);
    if ((await proved.count()) > 0) await this.tap(proved);
    else {
      await this.tap("Heater on, to the machine proof");
      await this.fill("Pressure with the hose clamped", "12.6 inH2O");
      await this.tap(page.getByRole("radio", { name: "Sat at the bottom" }));
      await this.tap(page.getByRole("radio", { name: "Came" }));
      await this.tap("Hose on: start the run");
    }
    const ball = page.getByRole("slider", { name: /Flow ball/ });
    await page.getByLabel("Pressure", { exact: true }).fill("12.4");
    for (let i = 0; i < 5; i++) {
      await page.clock.fastForward(12_000);
      const box = await ball.boundingBox();
      if (!box) throw new Error("no ball on the screen");
      const at = play.litres + (12 - play.litres) * Math.exp(-i / 0.7);
      await ball.click({ position: { x: box.width / 3, y: ((300 - (276 * at) / 12) / 332) * box.height } });
      await page.waitForTimeout(100);
      // While the ball falls it says what the openings are at most, and what they are once it has settled.
      if ((await page.getByText(/all openings together/).count()) > 0) this.first ??= this.since();
    }
    const all = this.key("Smoke at all of them");
    if (play.arrivals && (await all.count()) > 0) await this.tap(all);
    if (play.seen) {
      await this.tap("I see smoke: mark it");
      await this.tap(page.getByRole("dialog").getByRole("button", { name: play.seen, exact: true }));
      await this.tap("End the run");
    } else await this.tap("Looked everywhere: none outside");
    await this.answered();
    if (process.env.TRACE)
      console.log((await page.getByRole("region", { name: "Verdict of this run" }).textContent())?.slice(0, 600));
    await this.tap("Record the run");
    await this.key("Record the run").waitFor({ state: "detached" });
  }
  async back() {
    // What was listed with the check stands there a moment later.
    await this.page
      .getByRole("complementary", { name: "Ledger" })
      .getByRole("button", { name: /^Refitted|^Released/ })
      .first()
      .waitFor({ timeout: 3000 })
      // A check that takes nothing off has nothing to put back.
      .catch(() => {});
    const keys = this.page.getByRole("complementary", { name: "Ledger" });
    const all = keys.getByRole("button", { name: /^All \d+ refitted and seated$/ });
    if ((await all.count()) > 0) return this.tap(all);
    const each = keys.getByRole("button", { name: /^(Refitted|Released)/ });
    for (let left = await each.count(); left > 0; left--) {
      await this.tap(each);
      await this.page.waitForTimeout(300);
    }
  }
  /** A place, picked where another one is proposed. */
  async place(label: string, name: string) {
    const field = this.page.getByRole("group", { name: label, exact: true }).getByRole("button").first();
    const short = this.page.getByRole("combobox", { name: label, exact: true });
    await field.or(short).first().waitFor();
    if ((await short.count()) > 0) {
      if ((await short.locator("option:checked").textContent()) !== name) await short.selectOption({ label: name });
    } else if ((await field.textContent()) !== name) await pick(this.page, label, name);
  }
  async finding(what: string, where?: string, confirmed?: string) {
    await this.station("Find");
    // Where the last check pointed it stands already.
    const field = this.page.getByRole("group", { name: "Where", exact: true }).getByRole("button").first();
    if (where && (await field.textContent()) !== where) await pick(this.page, "Where", where);
    await this.fill("What was found", what);
    if (confirmed) await this.page.getByLabel("Confirmed", { exact: true }).selectOption(confirmed);
    await this.tap("Record the finding");
    await this.work().getByRole("listitem").filter({ hasText: what }).first().waitFor();
  }
  async repair(what: string, more: () => Promise<void> = async () => {}) {
    await this.station("Fix");
    await this.fill("What was done", what);
    await more();
    await this.pass(20);
    await this.tap("Record the repair");
    await this.work().getByRole("listitem").filter({ hasText: what }).first().waitFor();
  }
  /** Opens, from Prove, the check that answers what is owed. */
  async again(name: string | RegExp) {
    await this.station("Prove");
    await this.tap(
      this.work()
        .getByRole("region", { name: "What blocks closing" })
        .getByRole("button", { name: typeof name === "string" ? new RegExp(`^${name}`) : name }),
    );
    await this.ready();
  }
  /** Whether Prove still asks for a check. */
  async owes(name: string) {
    await this.station("Prove");
    await this.page.waitForTimeout(600);
    const blocks = this.work().getByRole("region", { name: "What blocks closing" });
    return (await blocks.getByRole("button", { name: new RegExp(`^${name}`) }).count()) > 0;
  }
  async tryAndDrive(how: string) {
    await this.station("Prove");
    await this.work().getByRole("heading", { name: "Try the complaint again" }).waitFor();
    if ((await this.page.getByText("Codes cleared now").count()) > 0) {
      await this.tap("Codes cleared now");
      await this.page.waitForTimeout(800);
      await this.pass(30);
      await this.fill("Driven, minutes", "25");
      await this.tap("Record the drive");
      await this.tap("All modules re-read: no codes");
    }
    await this.fill("How it was tried", how);
    await this.tap(this.work().getByRole("radio", { name: "Gone", exact: true }));
    await this.tap("Record the try");
  }
  /** The car's own monitor, read once it has run. */
  async monitorPassed() {
    await this.pass(20 * 60);
    await this.tap(this.work().getByRole("radio", { name: "Ran and passed" }));
    await this.fill("How it was read", "readiness, no pending code");
    await this.tap("Record the monitor");
    await this.page.waitForTimeout(800);
  }
  async close(told: string) {
    await this.page.waitForTimeout(1200);
    await this.station("Prove");
    const left = this.work().getByRole("region", { name: "What blocks closing" }).getByRole("listitem");
    await this.page.waitForTimeout(600);
    const texts = await left.allTextContents();
    // What a shop cannot show is shown by driving: the car goes, and the job waits for it.
    if (texts.some((text) => !text.includes("Shown by driving"))) throw new Error(`still owed: ${texts.join("; ")}`);
    await this.station("Hand over");
    await this.fill("What the customer should know", told);
    await this.tap(/^Hand over( conditionally| with the open condition)?$/);
    if (texts.length > 0)
      return this.work()
        .getByText(/^Handed over/)
        .first()
        .waitFor();
    await this.tap("Close the job");
    await this.work().getByText("Closed.").first().waitFor();
  }
}

/** Ten whole jobs, from the board to the end; each is played as a technician who knows the app would. */
export const WHOLE_JOBS: Readonly<Record<string, (job: Job) => Promise<void>>> = {
  "lean V6 with a runner joint": async (job) => {
    const { engine } = CARS.heron;
    await job.open({
      registration: "FW 55 M01",
      like: CARS.heron,
      complaint: "Rough at idle",
      codes: ["P0171 Too lean, bank 1, confirmed"],
    });
    await job.take("Fuel-trim survey");
    await job.survey(engine, 501);
    await job.take("Smoke run");
    await job.smoke({ litres: 8.2, seen: "Manifold gasket, bank 1", arrivals: [] });
    await job.back();
    await job.finding("gasket squeezed out at a runner");
    await job.repair("manifold gasket of bank 1 renewed");
    await job.again("Smoke run");
    await job.smoke({ litres: 4.2, arrivals: [] });
    await job.back();
    await job.again("Fuel-trim survey");
    await job.survey(repaired(engine), 502);
    await job.tryAndDrive("ten minutes of idle, then the hill");
    await job.close("The gasket let in air; it is new and measured tight.");
  },
  "high-idle hose": async (job) => {
    const { engine } = CARS.sanderling;
    await job.open({
      registration: "FW 14 M02",
      like: CARS.sanderling,
      complaint: "Idles too fast",
      codes: ["P0171 Too lean, confirmed"],
    });
    await job.take("Fuel-trim survey");
    await job.survey(engine, 511);
    await job.take("Pinch or cap off");
    await pick(job.page, "Branch", "vacuum-branch");
    await job.fill("Before, %", "13");
    await job.fill("Shut off, %", "1");
    await job.fill("Released, %", "13");
    await job.radio("The clamp or cap by itself", "Proved: it holds");
    await job.tap("Record the check");
    await job.back();
    await job.finding("perished at its nipple", "Small vacuum branch");
    await job.repair("hose renewed");
    await job.again("Pinch or cap off");
    await job.fill("Before, %", "0.6");
    await job.fill("Shut off, %", "0.5");
    await job.fill("Released, %", "0.6");
    await job.radio("The clamp or cap by itself", "Proved: it holds");
    await job.tap("Record the check");
    await job.back();
    await job.again("Fuel-trim survey");
    await job.survey(repaired(engine), 512);
    await job.tryAndDrive("ten minutes of idle");
    await job.close("A small hose was perished; it is new and measured.");
  },
  "boost hose with filter": async (job) => {
    const { charge } = CARS.guillemot;
    await job.open({
      registration: "FW 26 M04",
      like: CARS.guillemot,
      complaint: "No power uphill, hiss under load",
      codes: ["P0299 Underboost, confirmed"],
    });
    await job.take("Boost from a log");
    await job.log("pulls.csv", recordBoost(charge, 521));
    await job.boostSaid();
    await job.answered();
    await job.tap("Record the check");
    await job.finding("pipe off its bead", "Cooler outlet");
    await job.repair("cold pipe seated with a new clip");
    await job.again("Boost from a log");
    const { leak: _, ...tight } = charge;
    await job.log("pulls.csv", recordBoost({ ...tight, makes: 0.99 }, 522));
    await job.boostSaid();
    await job.tap("Record the check");
    await job.tryAndDrive("the hill, full boost held");
    await job.close("A boost pipe had come off; it is seated and measured.");
  },
  "filter box": async (job) => {
    const { engine } = CARS.tern;
    const pull = async (intake: { readonly intakeBlock?: number }, seed: number) => {
      await job.log("pull.csv", writeLog(recordDrive({ ...engine, ...intake }, seed, PULL), "comma", false));
      await job.boostSaid();
      await job.answered();
      await job.tap("Record the check");
    };
    await job.open({
      registration: "FW 62 M06",
      like: CARS.tern,
      complaint: "Dull when pulled hard",
      codes: ["P0101 MAF, range"],
    });
    await job.take("Airflow");
    await pull({ intakeBlock: 30 }, 531);
    await job.finding("filter full of leaves");
    await job.repair("filter renewed, box cleaned", () => job.radio("The part was", "Renewed"));
    await job.again("Airflow");
    await pull({}, 532);
    await job.tryAndDrive("the hill, wide open");
    await job.close("The air filter was blocked; it is new and measured.");
  },
  "limp mode": async (job) => {
    const { charge } = CARS.guillemot;
    const { leak: _, ...tight } = charge;
    const stops = async (leaks: boolean) => {
      const rating = job.page.getByRole("textbox", { name: "Adapter and hose are rated for, gauge" });
      if ((await rating.inputValue()) === "") await rating.fill("2 bar");
      await job.fill("Stop, gauge", "0.5 bar");
      if (leaks) {
        await job.tap("Air comes out here");
        await job.tap(
          job.page.getByRole("group", { name: "Where", exact: true }).getByRole("button", { name: "Cooler end tank" }),
        );
        await job.radio("How it showed", "Soap bubbles");
        await job.answered();
      }
      await job.tap("Next stop");
      await job.page.getByRole("textbox", { name: "Stop, gauge", exact: true }).nth(1).fill("1.1 bar");
      await job.radio("At the last stop", "Every joint listened to, felt and soaped");
      await job.answered();
      await job.tap("Record the check");
    };
    await job.open({
      registration: "FW 26 M07",
      like: CARS.guillemot,
      complaint: "Limp mode on the climb",
      codes: ["P0299 Underboost, confirmed"],
    });
    await job.take("Boost pressure test");
    await stops(true);
    await job.back();
    await job.finding("crimp of the end tank leaks", "Cooler end tank");
    await job.repair("cooler renewed");
    await job.again("Boost pressure test");
    await stops(false);
    await job.back();
    if (await job.owes("Boost from a log")) {
      await job.again("Boost from a log");
      await job.log("pulls.csv", recordBoost({ ...tight, makes: 0.99 }, 542));
      await job.boostSaid();
      await job.tap("Record the check");
    }
    await job.tryAndDrive("the climb, full boost held");
    await job.close("The charge-air cooler leaked; it is new and measured.");
  },
  "flap chain": async (job) => {
    const links = async (across: string) => {
      await job.fill("Vacuum at the solenoid's inlet", "18.6 inHg");
      await job.fill("Battery", "14.1");
      await job.fill("Across the solenoid, commanded", across);
      if (Number(across) < 10) return job.tap(job.work().getByRole("radio", { name: "It moves", exact: true }));
      await job.fill("Vacuum at its outlet, commanded", "18.2 inHg");
      await job.fill("Start, inHg", "19.5");
      await job.fill("End, inHg", "19.3");
      for (const name of ["Free", "Moves", "Whole"]) await job.tap(job.work().getByRole("radio", { name, exact: true }));
    };
    const recorded = async () => {
      await job.answered();
      await job.tap("Record the check");
      await job.back();
    };
    await job.open({
      registration: "FW 29 M08",
      like: CARS.redshank,
      complaint: "Dull below 3000",
      codes: ["P2004 Runner flaps stuck open"],
    });
    await job.take("Vacuum-worked device");
    await links("0.42");
    await recorded();
    await job.finding("control wire broken in the loom");
    await job.repair("wire repaired");
    await job.again("Vacuum-worked device");
    await links("13.6");
    await recorded();
    await job.tryAndDrive("pulled from 1500");
    await job.close("A wire was broken; it is repaired and measured.");
  },
  "secondary-air ports": async (job) => {
    /** Ports graded by a tap where their share lies on the scale; the first tells something already. */
    const graded = async (share: number, from = 0) => {
      const sliders = job.work().getByRole("slider");
      for (let i = from; i < (await sliders.count()); i++) {
        const box = await sliders.nth(i).boundingBox();
        if (!box) throw new Error("no port on the screen");
        await sliders.nth(i).click({ position: { x: 8 + ((box.width - 16) * share) / 100, y: box.height / 2 } });
        if (!job.first) await job.answered();
      }
    };
    await job.open({
      registration: "FW 09 M09",
      like: CARS.smew,
      complaint: "Engine light",
      codes: ["P0410 Secondary air, confirmed"],
    });
    await job.take("Borescope");
    await job.place("Passage", "Air switching valve");
    await graded(20);
    await job.tap("Add port");
    await graded(20, 2);
    await job.tap("Record the check");
    await job.back();
    await job.finding("ports grown shut with carbon");
    await job.repair("ports cleaned", async () => {
      await job.radio("The part was", "Cleaned");
      await job.tap(job.work().getByRole("radio", { name: "Temporary", exact: true }));
      await job.page.getByLabel("Re-check on").fill("2099-03-01");
      await job.fill("Its limit", "to the next service");
    });
    await job.again("Borescope");
    await job.radio("When", "After cleaning");
    await job.tap(/^The same ports as last time/);
    await graded(95);
    await job.tap("Record the check");
    await job.back();
    await job.tryAndDrive("five cold starts, listened");
    await job.close("The air ports were blocked; they are open.");
  },
  inspection: async (job) => {
    await job.open({ registration: "FW 92 M10", like: CARS.shearwater });
    await job.take("Smoke run");
    await job.smoke({ litres: 4.2, arrivals: [] });
    await job.back();
    await job.take("EVAP smoke");
    await job.smoke({
      litres: 0,
      arrivals: [],
      fuel: "45",
      set: () => job.tap(job.page.getByRole("radio", { name: "A plug by hand" })),
    });
    await job.back();
    await job.close("Measured tight.");
  },
  "EVAP blanked section": async (job) => {
    const car = CARS.shearwater;
    const decay = async (tank: typeof car, seed: number) => {
      const typed = job.page.getByRole("radiogroup", { name: "Decay: readings" }).getByRole("radio", { name: "Typed table" });
      if (!(await typed.isChecked())) await job.tap(typed);
      const read = decayOf(tank, { seed, entry: "service-port", reference: 0.508e-3 });
      await job.fill(
        /^Seconds and pressure/,
        read.samples
          .filter((_, i) => i % 4 === 0)
          .map(([t, p]) => `${t} ${p}`)
          .join("\n"),
      );
      const fuel = job.page.getByRole("textbox", { name: "Fuel level, % of the tank" });
      if ((await fuel.inputValue()) === "") await job.fill("Fuel level, % of the tank", "45");
      await job.answered();
      if ((await job.page.getByLabel("Held before shut-off, s").inputValue()) === "")
        await job.fill("Held before shut-off, s", "120");
      await job.tap("Record the check");
      await job.back();
    };
    await job.open({
      registration: "FW 17 M05",
      like: CARS.shearwater,
      complaint: "Engine light",
      codes: ["P0442 EVAP leak, small"],
    });
    await job.take("Pressure decay");
    await decay(car, 551);
    await job.take("EVAP smoke");
    const plugged = () => job.tap(job.page.getByRole("radio", { name: "A plug by hand" }));
    await job.smoke({ litres: 1.2, arrivals: [], fuel: "45", seen: "Canister, joint or crack", set: plugged });
    await job.back();
    await job.finding("cracked at its joint");
    await job.repair("canister renewed");
    await job.again("EVAP smoke");
    await job.smoke({ litres: 0, arrivals: [], fuel: "45" });
    await job.back();
    if (await job.owes("Pressure decay")) {
      await job.again("Pressure decay");
      await decay({ ...car, tank: { ...car.tank, leaks: [] } }, 552);
    }
    await job.tryAndDrive("looked at the light");
    await job.monitorPassed();
    await job.close("The canister was cracked; it is new and measured tight.");
  },
  "EVAP cap": async (job) => {
    await job.open({
      registration: "FW 17 M03",
      like: CARS.shearwater,
      complaint: "Engine light",
      codes: ["P0457 EVAP leak, filler cap loose or off"],
    });
    await job.take("Filler cap");
    await job.fill("Put on it, inH2O gauge", "30");
    await job.fill("Left, inH2O gauge", "9");
    await job.tap(job.page.getByRole("radio", { name: "Held by itself" }));
    await job.answered();
    await job.tap(job.page.getByRole("radio", { name: "Cracked" }));
    await job.tap("Record the check");
    await job.back();
    await job.finding("seal cracked", "Filler cap");
    await job.repair("cap renewed");
    await job.again("Filler cap");
    await job.fill("Put on it, inH2O gauge", "30");
    await job.fill("Left, inH2O gauge", "29.6");
    await job.tap(job.page.getByRole("radio", { name: "Whole" }));
    await job.tap(job.page.getByRole("radio", { name: "Held by itself" }));
    await job.tap("Record the check");
    await job.back();
    await job.tryAndDrive("looked at the light");
    await job.monitorPassed();
    await job.close("The cap's seal was cracked; it is new.");
  },
};

/**
 * What the morning leaves on a device, not counted: the bay's air, the columns of the shop's own scan tool, the smoke machine's
 * proof of the session, what the boost tester's adapter is rated for.
 */
export async function morning(page: Page, tally: Tally): Promise<void> {
  const job = new Job(page, tally);
  for (const car of [CARS.heron, CARS.sanderling]) {
    await job.open({ registration: "", complaint: "warm up", litres: "1.6" });
    await job.take("Fuel-trim survey");
    await job.log("drive.csv", writeLog(recordDrive(car.engine, 77), "comma", false));
  }
  await job.take("Smoke run");
  await job.smoke({ litres: 4.2, arrivals: [] });
  await job.back();
  await job.open({ registration: "", complaint: "warm up", like: CARS.guillemot });
  await job.take("Boost from a log");
  await job.log("pulls.csv", recordBoost(CARS.guillemot.charge, 78));
  await job.take("Boost pressure test");
  await job.fill("Adapter and hose are rated for, gauge", "2 bar");
  await job.fill("Stop, gauge", "0.5 bar");
  await job.tap("Record the check");
  await job.back();
}

/** Plays one job and counts. @returns what it took in all and to its first answer, or why it stopped. */
export async function playWhole(
  page: Page,
  tally: Tally,
  name: string,
): Promise<{ all: Tally; first: Tally | undefined; wrong?: string }> {
  const job = new Job(page, tally);
  try {
    await WHOLE_JOBS[name]?.(job);
    return { all: job.since(), first: job.first };
  } catch (error) {
    return { all: job.since(), first: job.first, wrong: (error as Error).message.split("\n").slice(0, 6).join(" | ") };
  }
}
