import { type Entry, entrySchema } from "./envelope";
import { type Kept, keptOf } from "./outbox";

/** Contents that a page of another origin says that it holds of this device: nothing of it is believed. */
export interface Offer {
  readonly kept?: unknown;
  /** Its plain storage, key by key */
  readonly typed?: unknown;
}

/** Part of an offer that can be taken over, once whoever made it has looked through it. */
export interface Carried {
  /** Entries whoever is in made there and has not sent */
  readonly mine: readonly Entry[];
  /** How many entries of whom else wait there: they sign in themselves */
  readonly others: ReadonlyMap<string, number>;
  /** Forms that were half filled, by their keys */
  readonly drafts: ReadonlyMap<string, string>;
}

/** Forms; what else stands in a device's storage are settings, which are this device's own. */
const DRAFT = /^pelota\.draft\.[\w.-]{1,120}$/;
/** Where entries waited before there was a store for them. */
const OLD_WAITING = /^pelota\.(outbox|set-aside)\./;
/** Entries and drafts at most; nobody's queue is so long. */
const MOST = 5000;

const listOf = (value: unknown): unknown[] => (Array.isArray(value) ? value.slice(0, MOST) : []);
const fieldOf = (value: unknown, field: string): unknown =>
  value !== null && typeof value === "object" ? (value as Record<string, unknown>)[field] : undefined;

function parsed(text: unknown): unknown {
  try {
    return JSON.parse(String(text));
  } catch {
    return undefined;
  }
}

/** Looks through an offer. @param name who is in: an entry of anybody else is not theirs to bring, nor to sign. */
export function carriedFor({ kept, typed }: Offer, name: string): Carried {
  const stored = Object.entries(typed !== null && typeof typed === "object" ? typed : {}).slice(0, MOST);
  const old = stored.filter(([key]) => OLD_WAITING.test(key)).flatMap(([, text]) => listOf(parsed(text)));
  const offered = [...listOf(kept), ...old].map((one) => fieldOf(one, "entry") ?? one);
  const entries = new Map(
    offered.filter((one): one is Entry => entrySchema.isValidSync(one, { strict: true })).map((one) => [one.id, one]),
  );
  const mine: Entry[] = [];
  const others = new Map<string, number>();
  for (const entry of entries.values()) {
    if (entry.by === name) mine.push(entry);
    else others.set(entry.by, (others.get(entry.by) ?? 0) + 1);
  }
  const drafts = stored.filter(([key, text]) => DRAFT.test(key) && parsed(text) !== undefined);
  return {
    mine: mine.toSorted((a, b) => a.deviceSeq - b.deviceSeq),
    others,
    drafts: new Map(drafts.map(([key, text]) => [key, String(text)])),
  };
}

/** Entries that are taken over, as this device keeps them: each by itself, and none tried or refused here yet. */
export const keptAnew = (entries: readonly Entry[]): Kept[] => entries.flatMap((entry) => keptOf([entry]));
