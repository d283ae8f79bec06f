import { decayOutside } from "./decay-trial";
import { TANK_WORLDS } from "./plastic-tank";

const t0 = Date.now();
for (const w of TANK_WORLDS)
  console.log(
    w,
    Object.entries(decayOutside(w, Number(process.argv[2] ?? 40), 5))
      .map(([k, v]) => `${k} ${(100 * v).toFixed(1)}`)
      .join("  "),
  );
console.log((Date.now() - t0) / 1000);
