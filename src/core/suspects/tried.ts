import type { Cause, Rows, Saying } from "../faults";
import { HAND_SEES } from "./expected";

/** Of what is not the cause, a hand takes so much for it. Own estimate. */
const HAND_ERRS = 0.02;

/** Likelihood rows of what is tried without an instrument: a suspect by hand, the complaint, the codes. Own estimates. */
export const rows = {
  "tried-not:*": {
    says: "tried by hand, and not it",
    given: { other: 1 - HAND_ERRS },
    reason: "another suspect was tried",
    own: { other: 1 - HAND_SEES },
    ownReason: "the hand was on it and nothing changed",
    ofCause: true,
  },
  "complaint-shows": {
    says: "the complaint showed when it was tried",
    given: { healthy: 0.04, other: 0.65 },
    reason: "what shows is there",
  },
  "complaint-stays-away": {
    says: "the complaint did not show when it was tried",
    given: { healthy: 0.96, other: 0.35 },
    reason: "a fault that is there shows more often than not; one that comes and goes may not",
  },
  "codes-stay-away": {
    says: "the codes stayed away after they were cleared and the car was driven",
    given: { healthy: 0.96, other: 0.4 },
    reason: "a fault that is there sets its code again, though not always on the first drive",
  },
} as const satisfies Rows;
type Seen = Saying<typeof rows>;

/** The observation of a cause that was tried by hand and is not it. */
export const triedNot = ({ id }: Pick<Cause, "id">): Seen => `tried-not:${id}`;

/** Observations of the complaint that was tried, and of codes that were cleared, with nothing repaired before. */
export const COMPLAINT_SEEN = { gone: "complaint-stays-away", remains: "complaint-shows" } as const satisfies Record<
  string,
  Seen
>;
export const CODES_STAY_AWAY: Seen = "codes-stay-away";
