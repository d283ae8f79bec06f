import type { CheckId, Together, Verdict, ZoneKnowledge } from "../checks";
import type { Advice, NextCheck, Suspect } from "../suspects";
import type { KitItem, RequiredLeak, VehicleFacts } from "../vehicle";
import type { ComebackState } from "./comeback";
import type { Bodies, CodeRead, WaitingOn } from "./entries";
import type { At, Imported } from "./envelope";
import type { OwnCode } from "./own-codes";
import type { AfterRepair, Proof, ProofStep } from "./proof";
import type { Readiness } from "./readiness";
import type { Closing } from "./signing";

export interface CheckState {
  readonly entry: string;
  readonly check: CheckId;
  readonly record: object;
  readonly at: At;
  readonly by: string;
  readonly verdict: Verdict;
  readonly afterRepair: AfterRepair;
  /** Joints that the check put to the test; none where it is void */
  readonly tested: readonly string[];
  /** SHA-256 of pictures of the reading */
  readonly pictures?: readonly string[];
  /** Part or way in it is about, where it has one */
  readonly place?: string;
  /** Done on a part that is not on the car: proves nothing about the car */
  readonly onBench: boolean;
  /** Set when the technician was shown another outcome under older rules */
  readonly wasShown?: { readonly outcome: Verdict["outcome"]; readonly headline: string };
}

export interface FindingState {
  readonly entry: string;
  readonly body: Bodies["finding"];
  readonly repairedBy?: string;
  /** Left with a reason, as the customer decided */
  readonly setAside?: Bodies["set-aside"];
}

export interface RepairState {
  readonly entry: string;
  readonly at: At;
  readonly by: string;
  readonly body: Bodies["repair"];
  readonly undone: boolean;
  /** An apprentice did it as permanent, and nobody who may has signed it */
  readonly proposed: boolean;
}

export interface OffCarItem {
  readonly entry: string;
  readonly what: string;
  readonly joint?: string;
  readonly since: string;
  readonly open: boolean;
  /** A scan-tool command, and the s after which the tool lets go by itself */
  readonly commanded?: { readonly seconds: number };
  /** The change that was taken back to learn whether it was the cure */
  readonly swappedBack?: string;
  /** Its bolts and clips: how many, and where they are kept */
  readonly kept?: string;
}

export const STATIONS = ["story", "scan", "look", "suspects", "check", "find", "fix", "prove", "handover"] as const;
export type StationId = (typeof STATIONS)[number];
export const STATION_NAMES: Record<StationId, string> = {
  story: "Story",
  scan: "Scan",
  look: "Look",
  suspects: "Suspects",
  check: "Check",
  find: "Find",
  fix: "Fix",
  prove: "Prove",
  handover: "Hand over",
};
export type StationState = "untouched" | "going-on" | "needs-you" | "settled";

/** One thing that stands between the job and its end, and the station where it is dealt with. */
/** Where at the station Prove something is done about it. */
export type ProvePart = "off-car" | "complaint" | "codes" | "drive" | "monitor" | "resets";

export interface Block {
  readonly station: StationId;
  readonly reason: string;
  /** Of what is done at the station Prove: where there */
  readonly part?: ProvePart;
  /** A condition that no shop can make, a cold night, a trailer, 300 km: driving shows it, also after the car was handed over */
  readonly onRoad?: true;
  /** Wording of such a condition for the customer */
  readonly customer?: string;
  /** Of a question that a check answers: that check */
  readonly step?: ProofStep;
}

/** A circuit that an inspection looks into, and the check that does. */
export interface InspectionStep {
  readonly circuit: string;
  readonly check: CheckId;
}

/** The routine of a car that is here to be looked over. */
export interface Inspection {
  readonly done: readonly InspectionStep[];
  readonly left: readonly InspectionStep[];
}

export interface JobState {
  readonly number: number;
  /** The code of the practice case that it is played on; none on a real car */
  readonly practice?: string;
  /** `elsewhere`: closed or handed over in another shop, and not taken up here */
  readonly status: "open" | "handed-over" | "closed" | "review" | "elsewhere";
  /** It came in a file from another shop */
  readonly imported?: Imported;
  /** Entries that are kept and shown, and prove and close nothing: why */
  readonly history: readonly { readonly entry: string; readonly kind: string; readonly by: string; readonly why: string }[];
  readonly vehicle?: VehicleFacts;
  readonly story?: Bodies["story"];
  readonly codes: readonly CodeRead[];
  readonly codesRead: boolean;
  /** Codes that what was taken off probably set */
  readonly ownCodes: readonly OwnCode[];
  readonly codesClearedAt?: string;
  readonly conditions?: Bodies["conditions"];
  readonly checks: readonly CheckState[];
  readonly findings: readonly FindingState[];
  readonly repairs: readonly RepairState[];
  readonly offCar: readonly OffCarItem[];
  readonly cautions: readonly string[];
  /** Suspects that were tried by hand and are not it; `just` while no check told anything since */
  readonly tried: readonly { readonly entry: string; readonly cause: string; readonly just: boolean }[];
  readonly complaint?: {
    readonly result: "gone" | "remains";
    readonly how: string;
    readonly at: string;
    readonly afterRepair: AfterRepair;
  };
  /** The strictest leak that its vapour system is held against: of every code's criteria, its maker or the rules */
  readonly requiredLeak?: RequiredLeak;
  /** State of proof: what stands, and what is owed */
  readonly proof: Proof;
  readonly setAside: readonly (Bodies["set-aside"] & { readonly entry: string })[];
  readonly drives: readonly (Bodies["drive"] & { readonly at: string })[];
  /** Of a fault that is not always there: whether it stayed away long enough since the last repair */
  readonly comeback?: ComebackState;
  /** Closed under older rules or limits: what today's would ask; empty otherwise */
  readonly wouldAsk: readonly Block[];
  /** How far a closed or closable job is proved */
  readonly standing: "proved" | "cause-unproved" | "temporary" | "something-left";
  /** The plan for the EVAP monitor, since the last repair */
  readonly readiness?: Readiness;
  /** Last result of the EVAP monitor */
  readonly monitor?: Bodies["monitor"] & { readonly at: string; readonly afterRepair: AfterRepair };
  readonly zones: readonly (ZoneKnowledge & { readonly entry: string })[];
  readonly suspects: readonly Suspect[];
  readonly next: readonly NextCheck[];
  /** Odds of "nothing wrong now", where they are such that the job may end with it */
  readonly nothingFound?: number;
  /** The suspect to confirm by hand instead of the next check, where that is sooner */
  readonly byHand?: Advice["byHand"];
  /** The routine of a car that is here to be looked over */
  readonly inspection?: Inspection;
  /** Observations that a confirmed repair explains: no longer weighed */
  readonly retired: readonly string[];
  /** Verdict that smoke runs of different sections say together */
  readonly sections?: Together;
  readonly kit: readonly KitItem[];
  /** Changes between the last failing and the first good reading, when more than one: cured, cause unproved */
  readonly confounded: readonly string[];
  readonly blocks: { readonly close: readonly Block[]; readonly handOver: readonly Block[] };
  readonly stations: Readonly<Record<StationId, StationState>>;
  readonly nextStation: { readonly station: StationId; readonly reason: string };
  readonly waiting: { readonly on: WaitingOn; readonly note?: string };
  /** An apprentice asks to close it: a lead looks at it */
  readonly closing?: Closing;
  readonly handover?: Bodies["handover"] & { readonly at: string; readonly by: string };
  readonly outcomes: readonly (Bodies["outcome"] & { readonly at: string })[];
  readonly notes: readonly { readonly entry: string; readonly text: string; readonly at: string; readonly by: string }[];
  /** For the engine's card */
  readonly engineNotes: readonly (Bodies["engine-note"] & { readonly at: string; readonly by: string })[];
  /** Entries of kinds this version does not know: kept, shown, inert */
  readonly unknown: readonly { readonly entry: string; readonly kind: string }[];
  readonly lastSeq: number;
  readonly updatedAt: string;
}
