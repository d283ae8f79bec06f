import type { Db } from "@/server/db/open";
import { readJob } from "@/server/jobs";
import { CARS, type DemoCar, repaired } from "./cars";
import { HOUR, Journal } from "./journal";

const MINUTE = 60_000;

import { throughDuct } from "./smoke";

/** A car with the Siskin's engine under another name, with a hole of its own. */
const serin = (n: number, year: number, registration: string, km: number, hole: number): DemoCar => ({
  ...CARS.siskin,
  id: `serin-${n}`,
  facts: { ...CARS.siskin.facts, model: "Serin 1.2", year, registration, odometer: { value: km, unit: "km" } },
  engine: { ...CARS.siskin.engine, hole },
  seed: 500 + 10 * n,
});

/** Jobs that came in on that engine in the last year: the same hose, mostly. */
const EARLIER = [
  [
    serin(1, 2016, "FW 21 ABL", 98_300, 1.9e-3),
    "pcv-hose",
    "PCV hose split at its lower bend",
    "PCV hose renewed with both clamps",
  ],
  [
    serin(2, 2017, "FW 47 CRE", 77_900, 2.1e-3),
    "pcv-hose",
    "PCV hose soft with oil, open at the bend",
    "PCV hose of the oil-proof kind fitted",
  ],
  [
    serin(3, 2015, "FW 30 DUN", 121_600, 2.2e-3),
    "manifold-gasket",
    "Manifold gasket squeezed out at runner 1",
    "Manifold gasket renewed, bolts in sequence",
  ],
  [
    serin(4, 2018, "FW 66 EGR", 58_200, 1.8e-3),
    "pcv-hose",
    "PCV hose split along its inside",
    "PCV hose renewed with both clamps",
  ],
  [
    serin(5, 2016, "FW 12 FEN", 104_700, 2.0e-3),
    "pcv-hose",
    "PCV hose cracked under its clamp",
    "PCV hose renewed, clamp moved clear of the bend",
  ],
] as const;

/** Cars that the shop has cured before, proved and closed, and one that has just come in with the same engine. */
export function fillEarlier(at: Db, now: number): void {
  EARLIER.forEach(([car, joint, what, done], i) => {
    const job = new Journal(at, car, now - (60 + 50 * i) * 24 * HOUR, i % 2 ? "Tobin Falk" : "Maren Oake");
    job.arrive("Idle hunts when warm, engine light on", { symptoms: ["rough-idle"], since: "some weeks" }, [
      { code: "P0171", status: "current" },
    ]);
    job.look();
    // One car keeps its bay busier than another.
    job.wait((4 + ((7 * i) % 11)) * MINUTE);
    job.survey();
    job.smoke(throughDuct(520 + 10 * i, [joint]));
    const found = job.found(joint, what, 2, {
      failed: joint === "pcv-hose" ? { why: "oil", against: "hose of the oil-proof kind" } : { why: "age" },
    });
    job.repair(found, done, {
      labourMinutes: 40,
      parts: [{ name: joint === "pcv-hose" ? "PCV hose" : "manifold gasket", count: 1 }],
    });
    job.wait(HOUR);
    job.survey(repaired(car.engine), 521 + 10 * i);
    job.smoke(throughDuct(522 + 10 * i, []), repaired(car.engine));
    job.proveOnTheRoad("Cold start, ten minutes of idle, drive to the lighthouse and back");
    job.add("handover", {
      decidedOn: readJob(job.id, at).lastSeq,
      conditional: false,
      summary: "The leak was found, repaired and measured afterwards.",
    });
    job.add("close", { decidedOn: readJob(job.id, at).lastSeq });
    job.wait(20 * 24 * HOUR).add("outcome", { result: "held" });
  });
  const next = new Journal(at, serin(6, 2018, "FW 54 GUL", 69_400, 1.9e-3), now - 2 * HOUR, "Isla Renn");
  next.arrive("Idle shakes a little when warm, light on since the weekend", { symptoms: ["rough-idle"] }, [
    { code: "P0171", status: "current" },
  ]);
}
