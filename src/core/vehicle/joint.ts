/** How gas passes a joint when nobody acts on it, engine standing; one-way from its `to` to its `from`. */
export type JointRest = "open" | "closed" | "one-way";

/** A joint between two zones, or from one to the outside. A joint to the outside is a place that can leak or be sealed. */
export interface JointIn<Zone extends string> {
  readonly id: string;
  readonly name: string;
  readonly from: Zone;
  readonly to: Zone | "outside";
  /** `seal` can only leak; `opening` is open to the outside on purpose; the rest tie two zones. */
  readonly kind: "seal" | "opening" | "pipe" | "meter" | "compressor" | "throttle" | "valve" | "engine";
  readonly rest: JointRest;
  /** A hose, pipe or cap that comes off here: smoke can be let in */
  readonly end?: HoseEnd;
  /** Joint whose adapter stands on it: hidden with that one */
  readonly seatOf?: string;
  /** Joint whose adapter pushes it open */
  readonly pushedBy?: string;
  /** Passes some gas by design, so a flow through it is no finding by itself */
  readonly weeps?: true;
  /** A hose that can be pinched or capped without taking anything apart */
  readonly pinchable?: true;
  /** Zone that a pinchable hose leads to */
  readonly feeds?: Zone;
}

/** Parts that come off at the end of a hose, pipe or line. */
export interface HoseEnd {
  readonly removes: string;
  /** Time that setting up and reading a run from here takes */
  readonly minutes: number;
  /** The trade goes in here first; the rest are ways in where those do not do */
  readonly usual?: true;
  /** Joint that it slides on to, where it is no joint of two zones itself: what lies beyond falls off with it */
  readonly at?: string;
  /** Offered no more: records of earlier builds name it */
  readonly former?: true;
}
