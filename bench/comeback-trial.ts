import { coldStarts, comesBackAfter, comesBackAtRandom } from "@/core/maths/comeback";
import { seededNoise } from "@/core/maths/random";

/** Histories of faults that are not repaired: how often what was seen since is called enough. */
export function comebackTrial(count: number, seed: number): Record<"random" | "sets in" | "cold starts", number> {
  const noise = seededNoise(seed);
  const exponential = (mean: number) => -mean * Math.log(1 - noise.uniform());
  const enough = { random: 0, "sets in": 0, "cold starts": 0 };
  for (let i = 0; i < count; i++) {
    const n = 1 + (i % 5);
    const mean = noise.uniform(5, 200);
    const recorded = Array.from({ length: n }, () => exponential(mean) + 1e-9);
    // Driven on until it is called enough, or until it comes back.
    const next = exponential(mean);
    const needed = comesBackAtRandom({ recorded, clean: 0 }).needed;
    if (next > needed) enough.random++;
    const onsets = Array.from({ length: n }, () => noise.uniform(5, 40));
    const runs = comesBackAfter({ recorded: onsets, clean: [] });
    const past = Math.max(...onsets);
    // Unrepaired, a run goes past the longest onset only where its own onset would have been later still.
    if (Array.from({ length: runs.needed }, () => noise.uniform(5, 40)).every((onset) => onset > past)) enough["sets in"]++;
    const share = noise.uniform(0.05, 0.95);
    const of = 1 + Math.floor(noise.uniform(0, 12));
    const came = Array.from({ length: of }, () => noise.uniform() < share).filter(Boolean).length;
    if (came === 0) continue;
    const starts = coldStarts({ came, of }, 0).needed;
    if (Array.from({ length: starts }, () => noise.uniform() >= share).every(Boolean)) enough["cold starts"]++;
  }
  return { random: enough.random / count, "sets in": enough["sets in"] / count, "cold starts": enough["cold starts"] / count };
}
