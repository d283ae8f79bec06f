import type { Db } from "@/server/db/open";
import { CARS } from "./cars";
import { filterOf } from "./filter";
import { HOUR, Journal } from "./journal";
import { holdOn } from "./readings";
import { secondaryAirOf } from "./secondary-air";

const { ambient, temperature } = CARS.teal.engine;
/** Free ports of a pump's way, m²; what a seam lets out. */
const FREE = 110e-6;
const AIR = { ambient, temperature, pressure: 4e3, seam: 0, ports: FREE } as const;
/** Volume of an actuator with its pipe, m³. */
const ACTUATOR = 90e-6;

/** Jobs on boost, diesels and what comes after the exhaust valve; each waits at another station. */
export function pressureSideJobs(at: Db, ago: (hours: number) => number): void {
  const guillemot = new Journal(at, CARS.guillemot, ago(30), "Tobin Falk");
  guillemot.arrive("No pull on the pass road, hisses under load", { symptoms: ["hiss-load", "low-power"] }, [
    { code: "P0299", status: "stored", freezeFrame: "2860 rpm, 93 °C, load 88 %" },
  ]);
  guillemot.look();
  guillemot.boost(CARS.guillemot.charge, 301);
  guillemot.pressure(302, { joint: "cooler-outlet", opensAt: 0.05e5, widens: 5e-10 });
  const joint = guillemot.found("cooler-outlet", "Cooler outlet joint walked off its bead, clip cracked", undefined, {
    confirmedBy: "seen",
  });
  guillemot.repair(joint, "Cold pipe renewed with its clip, bead cleaned", {
    method: "renewed",
    parts: [
      { name: "cold pipe", count: 1 },
      { name: "clip", count: 1 },
    ],
  });
  const { leak: _, ...tight } = CARS.guillemot.charge;
  guillemot.wait(HOUR);
  guillemot.pressure(303);
  guillemot.boost({ ...tight, makes: 0.99 }, 304);
  guillemot.add("waiting", { on: "drive" });

  const puffin = new Journal(at, CARS.puffin, ago(29), "Maren Oake");
  puffin.arrive("Weak, fan runs on after parking, light on", { symptoms: ["low-power", "regenerates-often"] }, [
    { code: "P2463", status: "stored" },
    { code: "P0299", status: "stored" },
  ]);
  puffin.look({ "cold-pipe-split": "cold pipe chafed through where it passes the battery tray" });
  puffin.boost(CARS.puffin.charge, 311);
  puffin.check("filter", filterOf(CARS.puffin.filter, { seed: 312, rpm: 3000, soot: [31, 42] }), 8);
  const hose = puffin.found("cold-pipe-split", "Cold pipe chafed through at the battery tray, 8 mm", 8, {
    confirmedBy: "seen",
    failed: { why: "rub", against: "pipe led clear of the tray" },
  });
  puffin.repair(hose, "Cold pipe renewed and led clear of the tray", {
    method: "renewed",
    parts: [{ name: "cold pipe", count: 1 }],
  });
  const sensor = puffin.add("displaced", { what: "front pressure pipe off for the flush", joint: "filter-pipe-front" });
  const loaded = puffin.found("filter-loaded", "Particulate filter loaded, 120 hPa at 3000 rpm", undefined, {
    confirmedBy: "measured",
    failed: { why: "oil", against: "boost leak cured first" },
  });
  puffin.repair(loaded, "Filter flushed on the car and burned free on the road", {
    permanence: "temporary",
    method: "cleaned",
    culprit: "boost-leak",
    limit: "filter pressure again at the next service",
    recheck: new Date(ago(-40 * 24)).toISOString().slice(0, 10),
    labourMinutes: 120,
  });
  puffin.add("restored", { item: sensor, seated: true });
  puffin.add("codes", { codes: [{ code: "P2453", status: "stored" }] });
  puffin.wait(2 * HOUR);
  puffin.check("filter", filterOf({ ...CARS.puffin.filter, resistance: 3300 }, { seed: 313, rpm: 2800, soot: [9, 8] }), 8);
  puffin.add("waiting", { on: "drive" });

  const kittiwake = new Journal(at, CARS.kittiwake, ago(27), "Isla Renn");
  kittiwake.arrive(
    "Goes into limp mode on the climb, runs again after a restart",
    {
      symptoms: ["low-power", "comes-and-goes"],
      comeback: { kind: "sets-in", after: [14, 22, 17, 19].map((value) => ({ value, unit: "km" as const })) },
    },
    [{ code: "P0299", status: "stored" }],
  );
  kittiwake.look();
  const { charge: engine } = CARS.puffin;
  kittiwake.boost({ ...engine, displacement: 1.9e-3, leak: 0, makes: 0.78, limpAt: 126 }, 321);
  kittiwake.check("hold", holdOn("boost-pipe", "line", { still: 8e-6, wiggled: 0.32e-3 }, 322, ACTUATOR), 5);
  const supply = (isolated: string[] | undefined, hole: number, seed: number) =>
    kittiwake.check(
      "hold",
      { ...holdOn("flap-line", "line", { still: hole, wiggled: hole }, seed, 0.3e-3), ...(isolated ? { isolated } : {}) },
      6,
    );
  supply(undefined, 0.6e-3, 323);
  supply(["egr-solenoid"], 0.6e-3, 324);
  supply(["boost-solenoid"], 10e-6, 325);
  kittiwake.found("boost-pipe", "Boost actuator pipe cracked where it leaves the solenoid, opens when bent", undefined, {
    confirmedBy: "measured",
  });

  const eider = new Journal(at, CARS.eider, ago(9), "Tobin Falk");
  eider.arrive("Ticks when cold, light on", { symptoms: ["ticking-cold"] }, [{ code: "P0171", status: "stored" }]);
  eider.look();
  eider.survey();
  eider.check("exhaust-gas", {
    fuel: "petrol",
    idle: { co: 0.05, co2: 13.9, o2: 2.2, hc: 30, ecuLambda: 1.0 },
    raised: { co: 0.06, co2: 14.6, o2: 0.8, hc: 20, ecuLambda: 1.0 },
    loop: "closed",
    probe: "deep",
    zeroed: true,
    warm: true,
  });

  const teal = new Journal(at, CARS.teal, ago(100), "Maren Oake");
  teal.arrive("Howls for a minute in the morning, light on", { symptoms: ["pump-howl"] }, [{ code: "P0491", status: "stored" }]);
  teal.look();
  teal.check("secondary-air", secondaryAirOf({ ...AIR, seam: 40e-6, ports: 0.3 * FREE }, "air-valve", 341), 14);
  const seam = teal.found("pump-seam", "Pump housing split along its seam", undefined, { confirmedBy: "seen" });
  teal.repair(seam, "Secondary-air pump renewed", { method: "renewed", parts: [{ name: "secondary-air pump", count: 1 }] });
  teal.check("secondary-air", secondaryAirOf(AIR, "air-valve", 342), 14);
  teal.add("codes-cleared", {});
  for (let day = 0; day < 2; day++) {
    teal.wait(14 * HOUR);
    teal.add("drive", {
      minutes: 12,
      coldStart: true,
      start: { coolant: { value: 8 + day, unit: "°C" }, air: { value: 7 + day, unit: "°C" } },
      pending: "none",
    });
  }
  teal.add("waiting", { on: "cold-soak", note: "three more cold starts" });

  const smew = new Journal(at, CARS.smew, ago(12), "Isla Renn");
  smew.arrive("Light comes after cold nights", {}, [{ code: "P0410", status: "stored" }]);
  smew.look();
  smew.check("secondary-air", secondaryAirOf({ ...AIR, ports: 0.03 * FREE }, "air-valve", 351), 14);
  smew.check("borescope", {
    joint: "air-valve",
    when: "as-found",
    ports: [35, 20, 10, 40].map((open, i) => ({
      name: `Port ${i + 1}`,
      straight: open + 10,
      side: open,
      depth: { value: 182 + 3 * i, unit: "mm" },
    })),
    pictures: [],
  });

  const scoter = new Journal(at, CARS.scoter, ago(7), "Tobin Falk");
  scoter.arrive("Hesitates at low speed, smoke from the tail", {}, [{ code: "P0402", status: "stored" }]);
  scoter.look();
  scoter.check("egr", {
    joint: "egr-valve",
    shut: { rpm: 1500, maf: { value: 16.1, unit: "g/s" } },
    open: { rpm: 1510, maf: { value: 11.9, unit: "g/s" } },
    seat: "passes",
    watched: "pipe",
    cooler: "not-tried",
    warm: true,
  });

  const razorbill = new Journal(at, CARS.razorbill, ago(6), "Isla Renn");
  razorbill.arrive(
    "Bought from the mainland, looked over before the winter",
    { purpose: "inspection", verified: "not-tried" },
    [],
  );
  razorbill.look();
  razorbill.smoke({
    seed: 361,
    entry: "air-meter",
    blocked: ["tailpipe"],
    heldOpen: ["throttle"],
    arrivals: ["metered-duct", "manifold", "crankcase", "breather"],
    seen: [],
    seconds: 96,
  });
}
