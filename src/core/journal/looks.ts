import type { CheckContext } from "../checks";
import { type LookItem, lookList, STANDS, type Stand } from "../checks/look";
import { causesOf, type Trait } from "../faults";
import { familiesOf, weighSuspects } from "../suspects";
import type { JobState } from "./state";
import { told } from "./weighing";

/** Places that one look asks for, at most. */
const MOST = 8;
/** What stands on every look, whatever the complaint: who was here before. */
const ALWAYS = "earlier-work";
/** Places that are no joint of their own: they show a fault of any of these. */
const HEARD: Readonly<Record<string, readonly Trait[]>> = {
  hiss: ["manifold-leak", "branch-leak", "booster-leak", "duct-leak", "charge-leak"],
  connectors: ["meter-low", "meter-range", "circuit-dead"],
  "snorkel-free": ["restriction"],
};
/** One ear hears a share of what hisses, as one eye sees a share of what is split. */
const HEARD_SHARE = 0.1;

export interface Looks {
  /** What this complaint and these codes ask for, in the order one walks round the car */
  readonly asked: readonly LookItem[];
  /** The rest of the list, in that order */
  readonly others: readonly LookItem[];
}

const ORDER = Object.keys(STANDS) as Stand[];
const walked = (items: readonly LookItem[]) => items.toSorted((a, b) => ORDER.indexOf(a.stand) - ORDER.indexOf(b.stand));

/**
 * Places to look at first: those that complaint and codes alone make likeliest, eight at most. What was measured meanwhile does
 * not change them: a list that is being filled stays as it stands.
 */
export function looksOf(
  context: Pick<CheckContext, "layout" | "vehicle">,
  state: Pick<JobState, "codes" | "ownCodes" | "story">,
): Looks {
  const { layout, vehicle } = context;
  const list = lookList(layout, vehicle);
  const story = told(context, state);
  const families = familiesOf(
    story.map((e) => e.observation),
    [],
  );
  const suspects = weighSuspects(causesOf(layout, vehicle, families), story);
  const weight = ({ id, joint }: LookItem): number => {
    if (id === ALWAYS) return Number.POSITIVE_INFINITY;
    const shows = suspects.filter(({ cause }) =>
      joint ? cause.joint === joint || cause.id === joint || cause.device === joint : HEARD[id]?.includes(cause.trait),
    );
    return shows.reduce((sum, s) => sum + s.odds, 0) * (joint ? 1 : HEARD_SHARE);
  };
  const weights = new Map(list.map((item) => [item.id, weight(item)]));
  const worth = list
    .filter((item) => (weights.get(item.id) ?? 0) > 0)
    .toSorted((a, b) => (weights.get(b.id) ?? 0) - (weights.get(a.id) ?? 0))
    .slice(0, MOST);
  return { asked: walked(worth), others: walked(list.filter((item) => !worth.includes(item))) };
}
