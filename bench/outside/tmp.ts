import { boostOutside } from "./boost-trial";
const t0 = Date.now();
const r = boostOutside(Number(process.argv[2] ?? 60), 1);
for (const [k, v] of Object.entries(r)) console.log(k.padEnd(14), (100 * v).toFixed(1));
console.log((Date.now() - t0) / 1000);
