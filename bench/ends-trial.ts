/**
 * Practice cars that are measured, truly repaired and then proved by nothing but what the job itself names: whatever was shown and
 * taken off before, some finite list of checks, drives and readings must end it.
 */
import { CHECK_IDS, CHECKS, type CheckId } from "@/core/checks";
import { STILL_AND_LIT } from "@/core/devices/light";
import { FAMILY_IDS } from "@/core/faults";
import { seededNoise } from "@/core/maths/random";
import { caseOf } from "@/core/practice/case";
import { CODE_FAMILIES } from "@/core/practice/code";
import { READERS } from "@/core/practice/readers";
import { rollIn } from "@/core/practice/roll-in.fixture";

type Bay = ReturnType<typeof rollIn>;

/** Checks before the repair, and how many of them must have shown the fault before it is mended. */
const MOST_BEFORE = 8;
const SHOWN = 2;
/** Rounds of doing all that is named after which a job counts as one that does not end. */
const ROUNDS = 8;

/** Takes a check as its plan says, listing what it takes off half of the time, as people do. */
function measure(bay: Bay, kind: CheckId, setup: Readonly<Record<string, unknown>>, lists: boolean): string {
  const { context } = bay.world().car;
  const plan = () => {
    try {
      return CHECKS[kind].plan(context, setup).displaces;
    } catch {
      return [];
    }
  };
  const off = lists ? plan().map((item) => bay.add("displaced", item)) : [];
  const said = bay.check(kind, setup);
  for (const item of off) bay.add("restored", { item });
  return said;
}

/** Shows the fault by what the bay has; true once something did. */
function showFault(bay: Bay, seed: number): boolean {
  const noise = seededNoise(seed);
  const { car } = bay.world();
  const { layout } = car.context;
  const kinds = CHECK_IDS.filter((id) => READERS[id] && CHECKS[id].candidates(car.context, [bay.given.family]).length > 0)
    .map((id) => [noise.uniform(), id] as const)
    .toSorted((a, b) => a[0] - b[0])
    .map(([, id]) => id);
  let shown = 0;
  for (const [i, kind] of kinds.entries()) {
    if (shown >= SHOWN || (shown > 0 && i >= MOST_BEFORE)) break;
    const places = CHECKS[kind].places?.(car.context) ?? [];
    const at = car.faults.flatMap((f) => (f.cause.joint && places.includes(f.cause.joint) ? [f.cause.joint] : []))[0];
    const way = CHECKS[kind].candidates(car.context, [bay.given.family])[0]?.place;
    // A way in that hides the fault shows nothing of it.
    const place = CHECKS[kind].sweeps ? (way ?? places[0]) : (at ?? way ?? places[0]);
    if (place && !layout.joints.some((j) => j.id === place)) continue;
    if (/^fail/.test(measure(bay, kind, { joint: place, entry: place }, noise.uniform() < 0.5))) shown++;
  }
  return bay.state().proof.shown;
}

function repairAll(bay: Bay): void {
  for (const { cause } of bay.world().car.faults) {
    const joint = cause.joint ?? cause.id;
    const finding = bay.add("finding", {
      joint,
      what: cause.name,
      evidence: [],
      confirmed: true,
      confirmedBy: "seen",
      failed: { why: "age" },
    });
    bay.add(
      "repair",
      {
        finding,
        what: `${cause.name}: renewed`,
        places: [...new Set([joint, cause.id])],
        method: "renewed",
        permanence: "permanent",
        labourMinutes: 20,
        parts: [{ name: cause.name, count: 1 }],
        otherChanges: [],
      },
      20,
    );
  }
}

/** Does all that stands between the job and its closing, once; what it does not name is not done. */
function payOnce(bay: Bay): void {
  const { blocks, proof, checks } = bay.state();
  const done = new Set<string>();
  for (const { step, reason } of blocks.close) {
    if (!step) continue;
    const key = JSON.stringify(step);
    if (done.has(key)) continue;
    done.add(key);
    if (step.check === "look" && !step.again) {
      const items = proof.owed.flatMap((o) => (o.missing && o.question === "seated" ? [{ id: o.place, state: "fine" }] : []));
      if (items.length > 0) bay.add("check", { check: "look", record: { items } });
      continue;
    }
    const again = checks.find((c) => c.entry === step.again)?.record ?? {};
    const { context } = bay.world().car;
    const place =
      step.place ?? CHECKS[step.check].candidates(context, FAMILY_IDS)[0]?.place ?? CHECKS[step.check].places?.(context)[0];
    const setup = { ...(place ? { joint: place, entry: place } : {}), ...again };
    if (!READERS[step.check]) throw new Error(`${step.check} cannot be done here: ${reason}`);
    bay.check(step.check, setup);
  }
  const codes = proof.codes.some((c) => !c.quiet);
  const soaked = proof.monitor !== undefined && proof.monitor !== "passed";
  const cold = bay.state().comeback !== undefined || proof.complaintNeeds.includes("cold");
  if (proof.complaint !== "gone") bay.answer("complaint-tried");
  if (codes || soaked) bay.add("codes-cleared", {});
  if (codes || soaked || cold || proof.complaintNeeds.length > 0) {
    bay.night();
    bay.answer("drive", 35);
    if (soaked) bay.answer("monitor");
    bay.answer("codes");
  }
}

export interface EndsTrial {
  readonly cars: number;
  /** Whose fault no check of the bay showed: nothing can show that it is gone */
  readonly notShown: number;
  readonly ended: number;
  /** Most rounds it took */
  readonly rounds: number;
  readonly open: readonly { readonly seed: number; readonly code: string; readonly why: string }[];
}

export function endsTrial(cars: number, from: number): EndsTrial {
  let [notShown, ended, rounds] = [0, 0, 0];
  const open: { seed: number; code: string; why: string }[] = [];
  for (let seed = from; seed < from + cars; seed++) {
    const family = CODE_FAMILIES[seed % CODE_FAMILIES.length] as (typeof CODE_FAMILIES)[number];
    const level = seed % 4 === 3 ? 3 : 1;
    const drawn = caseOf({ family, level, seed });
    const bay = rollIn(drawn.code, { ...drawn, instruments: {}, light: STILL_AND_LIT, strays: [] });
    if (!showFault(bay, seed)) {
      notShown++;
      continue;
    }
    repairAll(bay);
    let round = 0;
    while (bay.blocked().length > 0 && round < ROUNDS) {
      payOnce(bay);
      round++;
    }
    const left = bay.blocked();
    if (left.length === 0) {
      ended++;
      rounds = Math.max(rounds, round);
    } else open.push({ seed, code: drawn.code, why: left.join(" | ") });
  }
  return { cars, notShown, ended, rounds, open };
}
