import { v5 as namedUuid } from "uuid";
import type { CheckId } from "@/core/checks";
import { BOOST_EXTRACTOR, boostTrace } from "@/core/checks/boost";
import type { EvapSmokeRun } from "@/core/checks/evap-smoke";
import { lookList } from "@/core/checks/look";
import { PROBE_EXTRACTOR, type ProbeRecord, probeSeries } from "@/core/checks/probe";
import type { TrimSurvey } from "@/core/checks/trims";
import { type At, type Bodies, bodyVersion, type Entry, type EntryKind } from "@/core/journal";
import type { Role } from "@/core/people";
import { EXTRACTOR_VERSION, findSteadyWindows, readScanLog, surveyPoints } from "@/core/scan-log";
import { DEFAULT_LIMITS } from "@/core/shop/settings";
import { fromSi } from "@/core/units";
import { layoutOf } from "@/core/vehicle";
import type { Db } from "@/server/db/open";
import { storeFile } from "@/server/files";
import { appendEntries, openJob } from "@/server/jobs";
import type { DemoCar } from "./cars";
import { type HiddenCharge, recordBoost } from "./charge";
import { recordDrive, writeLog } from "./drive";
import type { HiddenEngine } from "./engine";
import { type HiddenCrack, pressureTestOf } from "./pressure";
import { recordProbe } from "./readings";
import { type SmokeStory, simulateSmoke } from "./smoke";
import { evapSmokeOf, type VapourCar } from "./tank";

const NAMESPACE = "6f1f7f0e-0d1a-4f5e-9d0c-5b1c4a7e2b11";
export const MINUTE = 60_000;
export const HOUR = 60 * MINUTE;

/** Who works in the demo shop, and as what. */
export const DEMO_PEOPLE = {
  "Maren Oake": "lead",
  "Tobin Falk": "technician",
  "Isla Renn": "apprentice",
} as const satisfies Record<string, Role>;
export type DemoPerson = keyof typeof DEMO_PEOPLE;

/** A finding with its place: what a repair answers. */
export interface Found {
  readonly id: string;
  readonly joint: string;
}

/** Writes one job's journal, entry after entry, on a clock of its own that ends in the past. */
export class Journal {
  /** Told of each job as it is begun: filling them takes its time on a slow machine. */
  static begun: (car: DemoCar) => void = () => {};
  readonly id: string;
  private count = 0;
  private seen = 0;
  constructor(
    private readonly at: Db,
    readonly car: DemoCar,
    private clock: number,
    private by: DemoPerson,
  ) {
    Journal.begun(car);
    this.id = namedUuid(car.id, NAMESPACE);
    openJob({ id: this.name("opened"), jobId: this.id, at: this.iso(), by, device: "demo", deviceSeq: 0 }, at);
  }

  /** The point where what comes next is somebody else's. */
  as(by: DemoPerson): this {
    this.by = by;
    return this;
  }

  private name = (what: string) => namedUuid(`${this.car.id} ${what}`, NAMESPACE);
  private iso = () => new Date(this.clock).toISOString();
  wait(ms: number): this {
    this.clock += ms;
    return this;
  }

  add<K extends EntryKind>(kind: K, body: Bodies[K], at?: At): string {
    const id = this.name(`${kind} ${++this.count}`);
    const entry: Entry = {
      id,
      jobId: this.id,
      kind,
      v: bodyVersion(kind),
      at: at ?? this.iso(),
      by: this.by,
      device: "demo",
      deviceSeq: this.count,
      seenSeq: this.seen,
      body,
    };
    const [recorded] = appendEntries(this.id, [entry], this.at, DEMO_PEOPLE[this.by]);
    this.seen = recorded?.seq ?? this.seen;
    this.wait(2 * MINUTE);
    return id;
  }

  arrive(complaint: string, more: Partial<Bodies["story"]>, codes: Bodies["codes"]["codes"]): this {
    this.add("vehicle", this.car.facts);
    this.add("story", { complaint, symptoms: [], verified: "seen", ...more });
    this.add("conditions", {
      ambient: { value: 1006, unit: "hPa", kind: "absolute" },
      bayTemperature: { value: 17, unit: "°C" },
    });
    if (codes.length > 0) this.add("codes", { codes });
    return this;
  }

  look(found: Record<string, string> = {}): string {
    const layout = layoutOf(this.car.facts);
    const items = lookList(layout, this.car.facts).map(({ id }) =>
      found[id] ? { id, state: "found" as const, note: found[id] } : { id, state: "fine" as const },
    );
    return this.add("check", { check: "look", record: { items } });
  }

  survey(engine: HiddenEngine = this.car.engine, seed = this.car.seed): string {
    const bytes = writeLog(recordDrive(engine, seed), this.car.dialect, engine.boost !== undefined);
    const file = `${this.car.id}-${seed}.csv`;
    const { sha256 } = storeFile(this.id, file, bytes, this.at);
    const points = surveyPoints(findSteadyWindows(readScanLog(bytes), DEFAULT_LIMITS));
    const record: TrimSurvey = {
      source: { kind: "log", file, sha256, extractor: EXTRACTOR_VERSION },
      ambient: fromSi(engine.ambient, "hPa", "absolute"),
      intakeTemperature: fromSi(engine.temperature, "°C"),
      points,
    };
    return this.add("check", { check: "trims", record });
  }

  check(check: CheckId, record: object, minutes = 6): string {
    const from = this.iso();
    this.wait(minutes * MINUTE);
    return this.add("check", { check, record }, { from, to: this.iso() });
  }

  /** Taps at idle, read from the log that ran meanwhile; the true spot drinks. */
  probe(spots: readonly string[], truth: string, seed: number): string {
    const taps = spots.map((joint, i) => ({ joint, at: 14 + 16 * i }));
    const rows = recordProbe(
      this.car.engine,
      taps.map(({ joint, at }) => ({ at, drinks: joint === truth })),
      14 + 16 * spots.length,
      seed,
    );
    const bytes = writeLog(rows, "comma", false);
    const file = `${this.car.id}-probe.csv`;
    const { sha256 } = storeFile(this.id, file, bytes, this.at);
    const series = probeSeries(
      readScanLog(bytes),
      taps.map((t) => t.at),
      "product",
    );
    const record: ProbeRecord = {
      agent: "gas",
      source: { kind: "log", file, sha256, extractor: PROBE_EXTRACTOR },
      closedLoop: true,
      taps,
      ...(series ? { series } : {}),
    };
    return this.check("probe", record, 4);
  }

  found(joint: string, what: string, size?: number, more: Partial<Bodies["finding"]> = {}): Found {
    const id = this.add("finding", {
      joint,
      what,
      ...(size ? { size: { value: size, unit: "mm" as const } } : {}),
      evidence: [],
      confirmed: true,
      confirmedBy: "capped-off",
      failed: { why: "age" },
      ...more,
    });
    return { id, joint };
  }

  repair(found: Found, what: string, more: Partial<Bodies["repair"]> = {}): string {
    return this.add("repair", {
      finding: found.id,
      what,
      permanence: "permanent",
      places: [found.joint],
      labourMinutes: 30,
      parts: [],
      goAhead: "The customer agreed",
      otherChanges: [],
      ...more,
    });
  }

  /** Codes cleared, a drive from cold, every module read again without them; the complaint tried on the way. */
  proveOnTheRoad(how: string): this {
    this.add("codes-cleared", {});
    const from = this.iso();
    this.wait(35 * MINUTE);
    this.add(
      "drive",
      { minutes: 35, distance: { value: 24, unit: "km" }, coldStart: true, conditions: how },
      { from, to: this.iso() },
    );
    this.add("codes", { codes: [], modules: ["Engine", "Gearbox", "Brakes"] });
    this.add("complaint-tried", { how, result: "gone" });
    return this;
  }

  /** A smoke run of the vapour system, its adapter and plug on the list and off it again. */
  vapourSmoke(
    story: Parameters<typeof evapSmokeOf>[1],
    car: VapourCar = this.car as DemoCar & VapourCar,
    change: Partial<EvapSmokeRun> = {},
  ): string {
    const entry = layoutOf(car.facts).joints.find((j) => j.id === story.entry);
    const off = [
      this.add("displaced", { what: entry?.end?.removes ?? story.entry, joint: story.entry }),
      this.add("displaced", { what: "plug at Vent filter", joint: "vent-filter" }),
    ];
    const from = this.iso();
    this.wait(story.seconds * 1000);
    const id = this.add("check", { check: "evap-smoke", record: evapSmokeOf(car, story, change) }, { from, to: this.iso() });
    for (const item of off) this.add("restored", { item, seated: true });
    return id;
  }

  /** Air into the charge side, after the compressor, up to what the engine itself puts there. */
  pressure(seed: number, crack?: HiddenCrack): string {
    const entry = layoutOf(this.car.facts).joints.find((j) => j.id === "hot-pipe-clamp");
    const off = this.add("displaced", { what: entry?.end?.removes ?? "hot pipe off", joint: "hot-pipe-clamp" });
    const id = this.check(
      "pressure-test",
      pressureTestOf(this.car.engine, crack, {
        seed,
        entry: "hot-pipe-clamp",
        blocked: [],
        heldOpen: [],
        ...(this.car.facts.maxBoost ? { maxBoost: this.car.facts.maxBoost } : {}),
        ratings: { tool: { value: 2, unit: "bar", kind: "gauge" } },
        stops: [0.28e5, 0.56e5, 0.82e5, 1.08e5],
      }),
      12,
    );
    this.add("restored", { item: off, seated: true });
    return id;
  }

  /** A drive that is logged from the key on: what the charge side made of it. */
  boost(hidden: HiddenCharge, seed: number, egr: "shut" | "open" | "unknown" = "shut"): string {
    const bytes = recordBoost(hidden, seed);
    const file = `${this.car.id}-boost-${seed}.csv`;
    const { sha256 } = storeFile(this.id, file, bytes, this.at);
    const trace = boostTrace(readScanLog(bytes), hidden.ambient);
    if (!trace) throw new Error("the demo's log has no steady moment");
    return this.check(
      "boost",
      {
        ...trace,
        source: { kind: "log", file, sha256, extractor: BOOST_EXTRACTOR },
        egr,
        ambient: fromSi(hidden.ambient, "hPa", "absolute"),
        warm: true,
      },
      16,
    );
  }

  smoke(story: SmokeStory, engine: HiddenEngine = this.car.engine, putBack = true): string {
    const layout = layoutOf(this.car.facts);
    const run = simulateSmoke(engine, layout, story);
    const entry = layout.joints.find((j) => j.id === story.entry);
    const off = [
      this.add("displaced", { what: entry?.end?.removes ?? story.entry, joint: story.entry }),
      ...story.blocked.map((joint) =>
        this.add("displaced", { what: `plug at ${layout.joints.find((j) => j.id === joint)?.name ?? joint}`, joint }),
      ),
    ];
    const from = this.iso();
    this.wait(story.seconds * 1000);
    const id = this.add("check", { check: "smoke", record: run }, { from, to: this.iso() });
    if (putBack) for (const item of off) this.add("restored", { item, seated: true });
    return id;
  }
}
