import type { CapRecord } from "@/core/checks/cap";
import type { PinchRecord } from "@/core/checks/pinch";
import type { Bodies } from "@/core/journal";
import { seededNoise } from "@/core/maths/random";
import { DEFAULT_SHOP } from "@/core/shop/settings";
import type { ZoneId } from "@/core/vehicle";
import { listJobs, refreshStale } from "@/server/board";
import { writeCustomer } from "@/server/customers";
import { type Db, dataFolder, db } from "@/server/db/open";
import { readJob } from "@/server/jobs";
import { addPerson } from "@/server/people";
import { writeShop } from "@/server/shop";
import { CARS, repaired } from "./cars";
import { fillEarlier } from "./earlier";
import { type HiddenEngine, standsAt } from "./engine";
import { DEMO_PEOPLE, HOUR, Journal, MINUTE } from "./journal";
import { DEMO_PIN } from "./pin.mjs";
import { pressureSideJobs } from "./pressure-side";
import { airflowOf, chainWith, crankcaseOf, holdOn, INSTRUMENTS, inUse, valveWith } from "./readings";
import { MACHINES, throughDuct } from "./smoke";
import { decayOf, pulldownOf } from "./tank";

/** A sound cap on its tester. */
function capOf(seed: number): CapRecord {
  const noise = seededNoise(seed);
  const read = (value: number) => Math.round((value + noise.normal(0.04)) * 5) / 5;
  return {
    part: "fitted",
    start: read(30),
    end: read(29.7),
    seconds: 10,
    unit: "inH2O",
    testerProved: true,
    seal: "whole",
    instrument: inUse("cap"),
  };
}

/** Remaining leaks of: the Skua's leaks once its PCV hose is new. */
const SECOND_LEAK: HiddenEngine = { ...CARS.skua.engine, hole: 2.0e-3, holeAt: "vacuum-branch" };

/** Total trim before, with the leaking branch shut, and after: what idle shows with and without its hole. */
function pinched(engine: HiddenEngine, joint: string, seed: number): PinchRecord {
  const noise = seededNoise(seed);
  const trim = (e: HiddenEngine) => Math.round((100 * (standsAt(e).trims[0] as number) + noise.normal(0.4)) * 10) / 10;
  return {
    joint,
    how: "pinch",
    blankProved: true,
    reads: "trim",
    before: trim(engine),
    shut: trim(repaired(engine)),
    released: trim(engine),
  };
}

/** How many jobs the demo has. */
export const DEMO_JOBS = 39;

/**
 * Fills an empty database with the demo shop and its jobs; returns how many. Readings come from the physics in demo/.
 * @param say is told how far it is.
 */
export async function fillDemo(at: Db = db(), now = Date.now(), say: (far: string) => void = () => {}): Promise<number> {
  if (listJobs({ includeClosed: true }, at).length > 0) return 0;
  let begun = 0;
  Journal.begun = ({ facts }) => say(`job ${++begun} of ${DEMO_JOBS}: ${facts.make} ${facts.model}`);
  const shop = { ...DEFAULT_SHOP, name: "Ferrowick Slip Garage", machines: MACHINES, instruments: INSTRUMENTS };
  writeShop({ base: 0, by: "Maren Oake", shop }, at);
  for (const [name, role] of Object.entries(DEMO_PEOPLE)) await addPerson({ name, role, pin: DEMO_PIN }, at);
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
  const hose = siskin.found("pcv-hose", "PCV hose split along the inside of its lower bend, 12 mm", 1.8, {
    failed: { why: "oil", against: "hose of the oil-proof kind fitted" },
  });
  siskin.repair(hose, "PCV hose renewed with both clamps, neighbours bent and found sound", {
    labourMinutes: 35,
    parts: [
      { name: "PCV hose", count: 1 },
      { name: "clamp", count: 2 },
    ],
  });
  siskin.wait(HOUR);
  siskin.survey(repaired(CARS.siskin.engine), 35);
  siskin.smoke(throughDuct(36, []), repaired(CARS.siskin.engine));
  siskin.proveOnTheRoad("Cold start, ten minutes of idle, drive to the lighthouse and back");
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
  const pump = dunlin.found("fuel-supply", "Fuel pressure falls from 3.8 to 2.1 bar under load: pump worn", undefined, {
    confirmedBy: "measured",
  });
  dunlin.repair(pump, "Fuel pump and filter renewed", {
    labourMinutes: 140,
    parts: [
      { name: "fuel pump", count: 1 },
      { name: "fuel filter", count: 1 },
    ],
    goAhead: "The customer agreed by telephone",
    otherChanges: ["fuel filter renewed"],
  });
  dunlin.add("codes-cleared", {});
  dunlin.as("Maren Oake").add("handover", {
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
  petrel.smoke(throughDuct(41, [], { heaterOnAt: -260, seconds: 121, proof: 11.6 }));

  const merle = new Journal(at, CARS.merle, ago(6), "Tobin Falk");
  merle.arrive("Limp mode on the motorway, hiss under load", { symptoms: ["hiss-load", "low-power"] }, [
    { code: "P0299", status: "current" },
  ]);
  merle.look({ "cold-pipe-split": "oil mist below the cold pipe's lower end" });
  merle.survey();
  merle.add("waiting", { on: "cold-soak", note: "exhaust too hot for smoke" });

  const dotterel = new Journal(at, CARS.dotterel, ago(50), "Isla Renn");
  dotterel.arrive("Weak on the long climb, hisses there and nowhere else", { symptoms: ["hiss-load", "low-power"] }, [
    { code: "P0299", status: "stored", freezeFrame: "3120 rpm, 94 °C, load 92 %" },
  ]);
  dotterel.look();
  dotterel.survey();
  // Through the cold end of the charge side: smoke reaches the crack, and at its pressure the crack is shut.
  dotterel.smoke(
    {
      seed: 111,
      entry: "hot-pipe-clamp",
      blocked: [],
      heldOpen: [],
      arrivals: ["hot-pipe", "cooler", "cold-pipe"],
      seen: [],
      seconds: 90,
      proof: 12.2,
    },
    repaired(CARS.dotterel.engine),
  );
  dotterel.pressure(112, CARS.dotterel.crack);
  const crack = dotterel.found("cooler-tank", "Cooler end tank cracked along its crimp, opens above 0.4 bar", undefined, {
    confirmedBy: "seen",
  });
  dotterel.repair(crack, "Cooler renewed with both its pipes' seals", {
    labourMinutes: 130,
    parts: [
      { name: "charge-air cooler", count: 1 },
      { name: "pipe seal", count: 2 },
    ],
  });
  dotterel.pressure(113);
  dotterel.survey(repaired(CARS.dotterel.engine), 114);
  dotterel.add("waiting", { on: "drive" });

  const heron = new Journal(at, CARS.heron, ago(28), "Isla Renn");
  heron.arrive("Light on, idle shakes, worse when cold", { symptoms: ["rough-idle", "cold-worse"] }, [
    { code: "P0174", status: "current", freezeFrame: "690 rpm, 88 °C" },
  ]);
  heron.look();
  heron.survey();
  heron.smoke(throughDuct(51, ["manifold-gasket-2"], { proof: 12 }));
  const gasket = heron.found("manifold-gasket-2", "Gasket of bank 2 squeezed out at the rear runner", 2.4, {
    confirmedBy: "seen",
    failed: { why: "earlier-work", against: "bolts torqued in sequence" },
  });
  heron.repair(gasket, "Manifold gaskets of both banks renewed, bolts in sequence", {
    places: ["manifold-gasket-1", "manifold-gasket-2", "throttle-gasket"],
    labourMinutes: 190,
    parts: [{ name: "manifold gasket", count: 2 }],
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
  whimbrel.smoke(throughDuct(61, ["booster-hose"], { proof: 12.4 }), undefined, false);
  whimbrel.found("booster-hose", "Booster hose perished and split at the manifold nipple", 2.8);
  whimbrel.add("waiting", { on: "part", note: "hose comes with Thursday's ferry" });

  const plover = new Journal(at, CARS.plover, ago(26), "Isla Renn");
  plover.arrive("Light on, no other complaint", {}, [
    { code: "P0171", status: "current" },
    { code: "P0101", status: "stored" },
  ]);
  plover.look();
  plover.survey();
  plover.add("waiting", { on: "customer", note: "asked whether to go on with the MAF" });

  const sanderling = new Journal(at, CARS.sanderling, ago(5), "Isla Renn");
  sanderling.arrive("Idle a little rough, light on since the frost", { symptoms: ["rough-idle", "hiss-idle"] }, [
    { code: "P0171", status: "current", freezeFrame: "734 rpm, 90 °C" },
  ]);
  sanderling.look();
  sanderling.survey();
  sanderling.probe(["manifold-gasket", "throttle-gasket", "vacuum-branch", "pcv-hose"], "vacuum-branch", 71);
  sanderling.check("pinch", pinched(CARS.sanderling.engine, "vacuum-branch", 72));
  sanderling.found("vacuum-branch", "Small vacuum branch behind the plenum perished, split at its nipple", 2.1);
  sanderling.add("waiting", { on: "part", note: "1 m of vacuum hose from the mainland" });

  const curlew = new Journal(at, CARS.curlew, ago(30), "Maren Oake");
  curlew.arrive("Light on, idle not quite even", { symptoms: ["rough-idle"] }, [{ code: "P0171", status: "current" }]);
  curlew.look();
  curlew.survey();
  curlew.smoke(throughDuct(81, [], { arrivals: ["metered-duct", "crankcase", "breather"], proof: 12.2 }));
  curlew.smoke(
    throughDuct(82, [], { blocked: ["tailpipe", "pcv-valve", "breather-duct"], arrivals: ["metered-duct"], proof: 12.2 }),
  );
  curlew.smoke({
    seed: 83,
    entry: "gauge-port",
    blocked: ["tailpipe", "pcv-valve"],
    heldOpen: [],
    arrivals: ["manifold"],
    seen: ["manifold-gasket"],
    seconds: 96,
    proof: 12.1,
  });

  const godwit = new Journal(at, CARS.godwit, ago(8), "Tobin Falk");
  godwit.arrive("Dull at low speed, some days fine", { symptoms: ["dull-low", "comes-and-goes"] }, [
    { code: "P2004", status: "stored" },
  ]);
  godwit.look();
  godwit.survey();
  godwit.check("hold", holdOn("flap-diaphragm", "actuator", { still: 6e-6, wiggled: 6e-6 }, 91));
  godwit.check("hold", holdOn("flap-pipe", "line", { still: 6e-6, wiggled: 60e-6 }, 92));

  const fulmar = new Journal(at, CARS.fulmar, ago(12), "Isla Renn");
  fulmar.arrive("Stalls now and then coming to the jetty", { symptoms: ["stalls", "rough-idle"] }, [
    { code: "P0496", status: "current" },
    { code: "P0171", status: "pending" },
  ]);
  fulmar.look();
  fulmar.survey();
  fulmar.check("valve", valveWith("purge-valve", 0.9e-3, "fitted", 101));
  fulmar.check("valve", valveWith("purge-valve", 5e-6, "new", 102));
  fulmar.add("waiting", { on: "me" });

  const tern = new Journal(at, CARS.tern, ago(20), "Maren Oake");
  tern.arrive("No pull above 4000, uses more fuel", { symptoms: ["low-power"] }, [{ code: "P0101", status: "stored" }]);
  tern.look();
  tern.survey();
  tern.smoke(throughDuct(111, [], { proof: 11.9 }));
  tern.check("airflow", airflowOf(CARS.tern.engine, { intakeBlock: 30 }, 112));
  const filter = tern.found("filter-clogged", "Air filter clogged with sand from the slip", undefined, {
    confirmedBy: "seen",
    failed: { why: "age", against: "lid seal renewed" },
  });
  tern.repair(filter, "Air filter renewed, box cleaned", { parts: [{ name: "air filter", count: 1 }] });
  tern.check("airflow", airflowOf(CARS.tern.engine, { ductHole: 34e-3 }, 113));

  const redshank = new Journal(at, CARS.redshank, ago(4), "Tobin Falk");
  redshank.arrive("Dull below 3000, light on", { symptoms: ["dull-low"] }, [{ code: "P2004", status: "current" }]);
  redshank.look();
  redshank.check("chain", chainWith(900, 121));

  const gannet = new Journal(at, CARS.gannet, ago(7), "Isla Renn");
  gannet.arrive("Whistles at idle, stops when the oil cap is lifted", { symptoms: ["whistle-cap", "rough-idle"] }, [
    { code: "P0171", status: "current" },
  ]);
  gannet.look();
  gannet.survey();
  gannet.check("crankcase", crankcaseOf(2.2e-3, 3.4e-3, 131));
  gannet.smoke(throughDuct(132, ["pcv-diaphragm"], { proof: 11.7 }));

  const skua = new Journal(at, CARS.skua, ago(52), "Maren Oake");
  skua.arrive("Idle hisses, light on", { symptoms: ["hiss-idle", "rough-idle"] }, [{ code: "P0171", status: "current" }]);
  skua.look();
  skua.survey();
  skua.smoke(throughDuct(141, ["pcv-hose"], { proof: 12.5 }));
  skua.repair(skua.found("pcv-hose", "PCV hose split at the elbow", 2.2), "PCV hose renewed", {
    parts: [{ name: "PCV hose", count: 1 }],
  });
  skua.wait(HOUR);
  skua.survey(SECOND_LEAK, 145);
  skua.smoke(throughDuct(146, ["vacuum-branch"], { proof: 12.4 }), SECOND_LEAK);

  vapourJobs(at, ago);
  pressureSideJobs(at, ago);

  const knot = new Journal(at, CARS.knot, ago(1), "Tobin Falk");
  knot.arrive("Idle stays at 1300 when warm", { symptoms: ["rough-idle"] }, [{ code: "P0507", status: "current" }]);

  writeCustomer(siskin.id, { name: "Hanne Quill", contact: "at the lighthouse cottages" }, at);
  writeCustomer(dunlin.id, { name: "Aldo Marsh", contact: "555 0127" }, at);
  refreshStale(at);
  fillEarlier(at, now);
  say("the board is folded from them");
  refreshStale(at);
  return listJobs({ includeClosed: true }, at).length;
}

/** Jobs on the vapour system; each waits at another station. */
function vapourJobs(at: Db, ago: (hours: number) => number): void {
  const everywhere: ZoneId[] = ["canister", "tank", "neck"];
  const code = (name: string, leak = 0.508): Bodies["codes"]["codes"] => [
    {
      code: name,
      status: "stored",
      criteria: { text: "cold start, 15 to 85 % fuel, vacuum lost within 30 s", leak: { value: leak, unit: "mm" } },
    },
  ];

  const shearwater = new Journal(at, CARS.shearwater, ago(6), "Tobin Falk");
  shearwater.arrive(
    "Engine light every second crossing, a whiff of fuel after filling",
    { symptoms: ["fuel-smell"] },
    code("P0456"),
  );
  shearwater.look();
  shearwater.vapourSmoke({ seed: 201, entry: "service-port", proof: 11.8, arrivals: everywhere, seen: [], seconds: 240 });
  shearwater.check("decay", decayOf(CARS.shearwater, { seed: 202, entry: "service-port", reference: 0.508e-3 }), 12);

  const pintail = new Journal(at, CARS.pintail, ago(4), "Isla Renn");
  pintail.arrive("Engine light on, nothing felt", {}, code("P0442", 1.016));
  pintail.look();
  pintail.vapourSmoke({ seed: 211, entry: "service-port", proof: 11.7, arrivals: ["canister", "tank"], seen: [], seconds: 150 });

  const avocet = new Journal(at, CARS.avocet, ago(26), "Maren Oake");
  avocet.arrive("Hard to start after filling up, light on", { symptoms: ["hard-start-filled"] }, [
    { code: "P0496", status: "current" },
  ]);
  avocet.look();
  avocet.check("pulldown", pulldownOf(CARS.avocet, { seed: 221, vent: "command" }), 8);
  avocet.check("valve", valveWith("purge-valve", 4e-6, "fitted", 222));
  avocet.add("waiting", { on: "cold-soak", note: "purge valve again, cold" });

  const turnstone = new Journal(at, CARS.turnstone, ago(3), "Tobin Falk");
  turnstone.arrive("Engine light on", {}, code("P0442", 1.016));
  turnstone.look();
  turnstone.vapourSmoke({ seed: 231, entry: "service-port", proof: 11.6, arrivals: [], seen: [], seconds: 60, coreShut: true });

  const lapwing = new Journal(at, CARS.lapwing, ago(50), "Maren Oake");
  lapwing.arrive("Smell of fuel behind the car, light on", { symptoms: ["fuel-smell"] }, code("P0455", 1.016));
  lapwing.look();
  lapwing.vapourSmoke({
    seed: 241,
    entry: "service-port",
    proof: 12.4,
    arrivals: everywhere,
    seen: ["tank-flange"],
    seconds: 150,
  });
  lapwing.repair(
    lapwing.found("tank-flange", "Pump flange seal swollen and rolled out of its groove", 1.1),
    "Flange seal renewed, ring torqued",
    {
      parts: [{ name: "flange seal", count: 1 }],
    },
  );
  lapwing.wait(HOUR);
  const left = { ...CARS.lapwing, tank: { ...CARS.lapwing.tank, leaks: CARS.lapwing.tank.leaks.slice(1) } };
  lapwing.vapourSmoke(
    { seed: 242, entry: "service-port", proof: 12.3, arrivals: everywhere, seen: ["purge-line-joint"], seconds: 150 },
    left,
  );

  const garganey = new Journal(at, CARS.garganey, ago(2), "Isla Renn");
  garganey.arrive("Engine light on since the pass road", {}, [{ code: "P0455", status: "current" }]);
  garganey.look();
  garganey.check("pulldown", pulldownOf(CARS.garganey, { seed: 251, vent: "command" }), 8);

  const shelduck = new Journal(at, CARS.shelduck, ago(5), "Maren Oake");
  shelduck.arrive("Light came on after the last fill", {}, code("P0455", 1.016));
  shelduck.look();
  const tightened = { ...CARS.shelduck, tank: { ...CARS.shelduck.tank, leaks: [] } };
  shelduck.vapourSmoke(
    { seed: 261, entry: "service-port", proof: 11.7, arrivals: everywhere, seen: [], seconds: 150 },
    tightened,
    {
      touchedBefore: ["filler-cap"],
    },
  );

  const wigeon = new Journal(at, CARS.wigeon, ago(20), "Tobin Falk");
  wigeon.arrive("Engine light on", {}, code("P0442"));
  wigeon.look();
  wigeon.vapourSmoke({
    seed: 271,
    entry: "service-port",
    proof: 12.0,
    arrivals: everywhere,
    seen: ["purge-line-joint"],
    seconds: 150,
  });
  wigeon.repair(
    wigeon.found("purge-line-joint", "Quick connector of the purge line cracked", 0.9),
    "Purge line renewed, connectors tugged",
    {
      parts: [{ name: "purge line", count: 1 }],
    },
  );
  wigeon.wait(30 * MINUTE);
  const sound = { ...CARS.wigeon, tank: { ...CARS.wigeon.tank, leaks: [] } };
  wigeon.vapourSmoke({ seed: 272, entry: "service-port", proof: 11.9, arrivals: everywhere, seen: [], seconds: 150 }, sound);
  wigeon.vapourSmoke(
    { seed: 273, entry: "filler-cap", proof: 11.9, arrivals: ["tank", "canister", "purge-line"], seen: [], seconds: 150 },
    sound,
  );
  wigeon.check("cap", capOf(274), 3);
  wigeon.proveOnTheRoad("Drive to the lighthouse and back, two starts");
  wigeon.add("readiness", {
    fuelLevel: 45,
    outside: { value: 9, unit: "°C" },
    parkedAt: new Date(ago(3)).toISOString(),
  });
  wigeon.add("waiting", { on: "cold-soak", note: "EVAP monitor" });
}

if (process.argv[1]?.endsWith("fill.ts")) {
  console.log(`${await fillDemo(undefined, undefined, (far) => console.log(`  ${far}`))} demo jobs in ${dataFolder()}`);
}
