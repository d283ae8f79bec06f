import type { CheckId } from "../checks/check";
import { refusal } from "../checks/trims/judge";
import { entriesOf, type Layout, reachOf, usualSetup, type VehicleFacts } from "../vehicle";
import { likelihood, TRIM_ROWS } from "./likelihoods";
import type { Suspect } from "./weigh";

export interface NextCheck {
  readonly check: CheckId;
  /** Smoke entry, where the check has one */
  readonly entry?: string;
  readonly name: string;
  /** Expected information, bits */
  readonly bits: number;
  readonly minutes: number;
  /** Bits per minute after the penalty for dismantling and risk */
  readonly score: number;
  readonly why: string;
}

/** Factor on a check that takes something off the car: what comes off goes back on, and is untested until re-checked. */
const TAKEN_APART = 0.7;

interface Candidate {
  readonly check: CheckId;
  readonly entry?: string;
  readonly name: string;
  readonly minutes: number;
  /** Factor below 1 for what it takes apart or risks */
  readonly penalty: number;
  readonly outcomes: readonly string[];
  readonly reached?: readonly string[];
  readonly why: string;
}

/**
 * Ranks the checks that can be done now by expected information per minute, less penalties.
 * Information is the mutual information of cause and outcome (Shannon 1948) under the same tables that weigh suspects.
 * @param done checks whose observation already counts: doing them again tells little.
 */
export function nextChecks(
  suspects: readonly Suspect[],
  layout: Layout,
  vehicle: VehicleFacts,
  done: readonly { check: CheckId; entry?: string }[],
): NextCheck[] {
  return candidates(layout, vehicle)
    .map((c): NextCheck => {
      const repeated = done.some((d) => d.check === c.check && d.entry === c.entry);
      const bits = information(suspects, c) * (repeated ? 0.1 : 1);
      return {
        check: c.check,
        ...(c.entry ? { entry: c.entry } : {}),
        name: c.name,
        bits,
        minutes: c.minutes,
        score: (bits / c.minutes) * c.penalty,
        why: `${narrowing(bits)} in about ${c.minutes} min: ${c.why}`,
      };
    })
    .sort((a, b) => b.score - a.score);
}

/** Expected information in plain words: of 2^H equally likely suspects, 2^(H − bits) stay. */
const narrowing = (bits: number) =>
  bits < 0.07 ? "tells hardly anything new" : `narrows the suspects to about ${Math.round(100 * 2 ** -bits)} %`;

function candidates(layout: Layout, vehicle: VehicleFacts): Candidate[] {
  const list: Candidate[] = [
    {
      check: "look",
      name: "Look and feel",
      minutes: 6,
      penalty: 1,
      outcomes: ["look-clean", ...layout.joints.filter((j) => j.kind === "seal").map((j) => `look-found:${j.id}`)],
      why: "costs nothing and takes nothing apart",
    },
  ];
  if (!refusal(vehicle)) {
    list.push({
      check: "trims",
      name: "Fuel-trim survey",
      minutes: 12,
      penalty: 1,
      outcomes: TRIM_ROWS.map((r) => r.observation),
      why: "tells leak from meter and fuel, takes nothing apart",
    });
  }
  for (const joint of entriesOf(layout)) {
    const reached = reachOf(layout, usualSetup(layout, joint.id)).tested.map((j) => j.id);
    list.push({
      check: "smoke",
      entry: joint.id,
      name: `Smoke in at the ${joint.name.toLowerCase()}`,
      minutes: joint.entry?.minutes ?? 0,
      penalty: TAKEN_APART,
      outcomes: ["smoke-none-outside", "smoke-inside-path", ...reached.map((id) => `smoke-at:${id}`)],
      reached,
      why: `puts ${reached.length} joints to the test at once`,
    });
  }
  return list;
}

/** Mutual information of cause and outcome, bits; outcome probabilities are normalised within the check. */
function information(suspects: readonly Suspect[], c: Candidate): number {
  const rows = suspects.map(({ cause }) => {
    const raw = c.outcomes.map((o) => likelihood(o, cause, c.reached)?.value ?? 0);
    const total = raw.reduce((a, b) => a + b, 0) || 1;
    return raw.map((v) => v / total);
  });
  let bits = 0;
  for (let o = 0; o < c.outcomes.length; o++) {
    const mean = suspects.reduce((sum, s, i) => sum + s.odds * (rows[i]?.[o] ?? 0), 0);
    for (let i = 0; i < suspects.length; i++) {
      const p = rows[i]?.[o] ?? 0;
      if (p > 0 && mean > 0) bits += (suspects[i]?.odds ?? 0) * p * Math.log2(p / mean);
    }
  }
  return bits;
}
