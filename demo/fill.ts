import { v5 as namedUuid } from "uuid";
import { lookList } from "@/core/checks/look";
import type { TrimSurvey } from "@/core/checks/trims";
import type { At, Bodies, Entry, EntryKind } from "@/core/journal";
import { EXTRACTOR_VERSION, findSteadyWindows, readScanLog, surveyPoints } from "@/core/scan-log";
import { DEFAULT_LIMITS, DEFAULT_SHOP } from "@/core/shop/settings";
import { fromSi } from "@/core/units";
import { layoutOf } from "@/core/vehicle";
import { type Db, dataFolder, db } from "@/server/db/open";
import { storeFile } from "@/server/files";
import { appendEntries, listJobs, openJob, readJob, writeCustomer } from "@/server/jobs";
import { addPerson } from "@/server/people";
import { writeShop } from "@/server/shop";
import { CARS, type DemoCar, repaired } from "./cars";
import { recordDrive, writeLog } from "./drive";
import type { HiddenEngine } from "./engine";
import { MACHINES, type SmokeStory, simulateSmoke } from "./smoke";

const NAMESPACE = "6f1f7f0e-0d1a-4f5e-9d0c-5b1c4a7e2b11";
const MINUTE = 60_000;
const HOUR = 60 * MINUTE;

/** Writes one job's journal, entry after entry, on a clock of its own that ends in the past. */
class Journal {
  readonly id: string;
  private count = 0;
  private seen = 0;
  constructor(
    private readonly at: Db,
    readonly car: DemoCar,
    private clock: number,
    private readonly by: string,
  ) {
    this.id = namedUuid(car.id, NAMESPACE);
    openJob({ id: this.name("opened"), jobId: this.id, at: this.iso(), by, device: "demo", deviceSeq: 0 }, at);
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
      v: 1,
      at: at ?? this.iso(),
      by: this.by,
      device: "demo",
      deviceSeq: this.count,
      seenSeq: this.seen,
      body,
    };
    const [recorded] = appendEntries(this.id, [entry], this.at);
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
    const bytes = writeLog(recordDrive(engine, seed), this.car.dialect, engine.turbo);
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

  smoke(story: SmokeStory, engine: HiddenEngine = this.car.engine, putBack = true): string {
    const layout = layoutOf(this.car.facts);
    const run = simulateSmoke(engine, layout, story);
    const entry = layout.joints.find((j) => j.id === story.entry);
    const off = [
      this.add("displaced", { what: entry?.entry?.removes ?? story.entry, joint: story.entry }),
      ...story.blocked.map((joint) =>
        this.add("displaced", { what: `plug at ${layout.joints.find((j) => j.id === joint)?.name ?? joint}`, joint }),
      ),
    ];
    const from = this.iso();
    this.wait(story.seconds * 1000);
    const id = this.add("check", { check: "smoke", record: run }, { from, to: this.iso() });
    if (putBack) for (const item of off) this.add("restored", { item });
    return id;
  }
}

const throughDuct = (seed: number, seen: string[], more: Partial<SmokeStory> = {}): SmokeStory => ({
  seed,
  entry: "air-meter",
  blocked: ["tailpipe"],
  heldOpen: ["throttle"],
  arrivals: ["metered-duct", "manifold", "crankcase", "breather"],
  seen,
  seconds: 96,
  ...more,
});

/** Fills an empty database with the demo shop and its jobs; returns how many. Readings come from the physics in demo/. */
export function fillDemo(at: Db = db(), now = Date.now()): number {
  if (listJobs({ includeClosed: true }, at).length > 0) return 0;
  writeShop({ ...DEFAULT_SHOP, name: "Ferrowick Slip Garage", machines: MACHINES }, at);
  for (const name of ["Maren Oake", "Tobin Falk", "Isla Renn"]) addPerson({ name }, at);
  const ago = (hours: number) => now - hours * HOUR;

  const siskin = new Journal(at, CARS.siskin, ago(22 * 24), "Maren Oake");
  siskin.arrive(
    "Idle hunts and hisses since the last service, engine light on",
    { symptoms: ["hiss-idle", "rough-idle"], since: "three weeks" },
    [{ code: "P0171", status: "current", freezeFrame: "712 rpm, 91 °C, load 22 %" }],
  );
  siskin.look();
  siskin.survey();
  siskin.smoke(throughDuct(31, ["pcv-hose"]));
  const hose = siskin.add("finding", {
    joint: "pcv-hose",
    what: "PCV hose split along the inside of its lower bend, 12 mm",
    size: { value: 1.8, unit: "mm" },
    evidence: [],
    confirmed: true,
  });
  siskin.add("repair", {
    finding: hose,
    what: "PCV hose renewed with both clamps, neighbours bent and found sound",
    permanence: "permanent",
    labourMinutes: 35,
    parts: [
      { name: "PCV hose", count: 1 },
      { name: "clamp", count: 2 },
    ],
    goAhead: "The customer agreed",
    otherChanges: [],
  });
  siskin.wait(HOUR);
  siskin.survey(repaired(CARS.siskin.engine), 35);
  siskin.smoke(throughDuct(36, []), repaired(CARS.siskin.engine));
  siskin.add("codes-cleared", {});
  siskin.add("complaint-tried", { how: "Cold start, ten minutes of idle, drive to the lighthouse and back", result: "gone" });
  siskin.add("handover", {
    decidedOn: readJob(siskin.id, at).lastSeq,
    conditional: false,
    summary:
      "The hose that carries crankcase gas had split and let in air. It is renewed, and the engine was measured sound afterwards.",
    watch: "Engine light, hissing at idle",
  });
  siskin.add("close", { decidedOn: readJob(siskin.id, at).lastSeq });
  siskin.wait(15 * 24 * HOUR).add("outcome", { result: "held", note: "came by for tyres, no light since" });

  const dunlin = new Journal(at, CARS.dunlin, ago(9 * 24), "Tobin Falk");
  dunlin.arrive("No pull on the harbour hill, fine in town", { symptoms: ["low-power"], when: "full load only" }, [
    { code: "P0171", status: "stored" },
  ]);
  dunlin.look();
  dunlin.survey();
  const pump = dunlin.add("finding", {
    joint: "other",
    what: "Fuel pressure falls from 3.8 to 2.1 bar under load: pump worn",
    evidence: [],
    confirmed: true,
  });
  dunlin.add("repair", {
    finding: pump,
    what: "Fuel pump and filter renewed",
    permanence: "permanent",
    labourMinutes: 140,
    parts: [
      { name: "fuel pump", count: 1 },
      { name: "fuel filter", count: 1 },
    ],
    goAhead: "The customer agreed by telephone",
    otherChanges: ["fuel filter renewed"],
  });
  dunlin.add("codes-cleared", {});
  dunlin.add("handover", {
    decidedOn: readJob(dunlin.id, at).lastSeq,
    conditional: true,
    summary: "The pump could not keep up. It is renewed; the hill was not driven before the ferry left.",
    watch: "Pull on the harbour hill",
    comeBack: "At once if the light or the weakness returns",
  });

  const petrel = new Journal(at, CARS.petrel, ago(3), "Maren Oake");
  petrel.arrive(
    "Engine light on, rough idle when warm, uses more fuel",
    { symptoms: ["rough-idle", "hiss-idle"], since: "two weeks", replacedBefore: "spark plugs, by the owner" },
    [
      { code: "P0171", status: "current", freezeFrame: "724 rpm, 92 °C, load 23 %, trim +17 %" },
      { code: "B1325", status: "history", asideReason: "seat heater, old, unrelated" },
    ],
  );
  petrel.look();
  petrel.survey();
  petrel.smoke(throughDuct(41, [], { heaterOnAt: -260, seconds: 121 }));

  const merle = new Journal(at, CARS.merle, ago(6), "Tobin Falk");
  merle.arrive("Limp mode on the motorway, hiss under load", { symptoms: ["hiss-load", "low-power"] }, [
    { code: "P0299", status: "current" },
  ]);
  merle.look({ "cold-pipe-split": "oil mist below the cold pipe's lower end" });
  merle.survey();
  merle.add("waiting", { on: "cold-soak", note: "exhaust too hot for smoke" });

  const heron = new Journal(at, CARS.heron, ago(28), "Isla Renn");
  heron.arrive("Light on, idle shakes, worse when cold", { symptoms: ["rough-idle", "cold-worse"] }, [
    { code: "P0174", status: "current", freezeFrame: "690 rpm, 88 °C" },
  ]);
  heron.look();
  heron.survey();
  heron.smoke(throughDuct(51, ["manifold-gasket-2"]));
  const gasket = heron.add("finding", {
    joint: "manifold-gasket-2",
    what: "Gasket of bank 2 squeezed out at the rear runner",
    size: { value: 2.4, unit: "mm" },
    evidence: [],
    confirmed: true,
  });
  heron.add("repair", {
    finding: gasket,
    what: "Manifold gaskets of both banks renewed, bolts in sequence",
    permanence: "permanent",
    labourMinutes: 190,
    parts: [{ name: "manifold gasket", count: 2 }],
    goAhead: "The customer agreed",
    otherChanges: ["air filter renewed"],
  });
  heron.add("codes-cleared", {});
  heron.survey(repaired(CARS.heron.engine), 55);
  heron.add("waiting", { on: "drive" });

  const whimbrel = new Journal(at, CARS.whimbrel, ago(50), "Maren Oake");
  whimbrel.arrive("Brake pedal hard after a cold night, engine hisses", { symptoms: ["brake-hard", "hiss-idle"] }, [
    { code: "P0171", status: "pending" },
  ]);
  whimbrel.look({ "booster-hose": "booster hose perished at the manifold end" });
  whimbrel.survey();
  whimbrel.smoke(throughDuct(61, ["booster-hose"]), undefined, false);
  whimbrel.add("finding", {
    joint: "booster-hose",
    what: "Booster hose perished and split at the manifold nipple",
    size: { value: 2.3, unit: "mm" },
    evidence: [],
    confirmed: true,
  });
  whimbrel.add("waiting", { on: "part", note: "hose comes with Thursday's ferry" });

  const plover = new Journal(at, CARS.plover, ago(26), "Isla Renn");
  plover.arrive("Light on, no other complaint", {}, [
    { code: "P0171", status: "current" },
    { code: "P0101", status: "stored" },
  ]);
  plover.look();
  plover.survey();
  plover.add("waiting", { on: "customer", note: "asked whether to go on with the air meter" });

  const knot = new Journal(at, CARS.knot, ago(1), "Tobin Falk");
  knot.arrive("Idle stays at 1300 when warm", { symptoms: ["rough-idle"] }, [{ code: "P0507", status: "current" }]);

  writeCustomer(siskin.id, { name: "Hanne Quill", contact: "at the lighthouse cottages" }, at);
  return listJobs({ includeClosed: true }, at).length;
}

if (process.argv[1]?.endsWith("fill.ts")) {
  console.log(`${fillDemo()} demo jobs in ${dataFolder()}`);
}
