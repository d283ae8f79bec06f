import { mkdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { CARS, type DemoCar } from "./cars";
import { recordDrive, writeLog } from "./drive";

/** The cars whose drives are shipped as sample logs: one of each dialect, and a turbo. */
export const SAMPLES: readonly DemoCar[] = [CARS.petrel, CARS.heron, CARS.plover, CARS.siskin, CARS.merle];

export const sampleName = (car: DemoCar) => `${car.id}.csv`;
export const sampleBytes = (car: DemoCar) =>
  writeLog(recordDrive(car.engine, car.seed), car.dialect, car.engine.boost !== undefined);

if (process.argv[1]?.endsWith("logs.ts")) {
  const folder = join("demo", "logs");
  mkdirSync(folder, { recursive: true });
  for (const car of SAMPLES) writeFileSync(join(folder, sampleName(car)), sampleBytes(car));
}
