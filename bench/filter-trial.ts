import { judgeFilter } from "@/core/gas/filter";
import { seededNoise } from "@/core/maths/random";

/** Filters loaded or sound, held at whatever speed: a viscous and an inertial part, gas at its own temperature, a meter and a sensor. */
export function filterTrial(cars: number, seed: number): { cars: number; answered: number; right: number } {
  const noise = seededNoise(seed);
  let answered = 0;
  let right = 0;
  for (let i = 0; i < cars; i++) {
    const litres = noise.uniform(1.4, 3);
    const loaded = i % 2 === 0;
    const rpm = noise.uniform(2300, 3800);
    const at3000 = loaded ? noise.uniform(9500, 16_000) : noise.uniform(1500, 3900);
    const inertial = noise.uniform(0.05, 0.25);
    const hot = noise.uniform(445, 505);
    const x = (rpm / 3000) * (hot / 473);
    const pressure = at3000 * ((1 - inertial) * x + inertial * x * x) * (1 + noise.normal(0.01)) + noise.normal(30);
    const maf = 0.85 * 1.18 * litres * 1e-3 * (rpm / 120) * (1 + noise.normal(0.02));
    const { outcome } = judgeFilter({
      displacement: litres * 1e-3,
      points: [
        { state: "key-on", rpm: 0, pressure: noise.normal(40) },
        { state: "held", rpm, pressure, maf },
      ],
      division: 50,
      egr: "shut",
    });
    if (outcome === "unsure") continue;
    answered++;
    if ((outcome === "fail") === loaded) right++;
  }
  return { cars, answered: answered / cars, right: right / Math.max(1, answered) };
}
