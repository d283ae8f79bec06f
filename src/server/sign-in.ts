import { randomBytes } from "node:crypto";
import { eq, sql } from "drizzle-orm";
import { v4 as uuid } from "uuid";
import * as yup from "yup";
import { BadInput, strictObject, validate } from "@/core/input";
import { asMade, type Entry, entryAct, type JournalEntry, spanOf } from "@/core/journal";
import {
  type Act,
  isAsSigned,
  may,
  mayNot,
  newPinSchema,
  OFFLINE_DAYS,
  pinSchema,
  provesDoor,
  type Role,
  SIGN_IN_HEADER,
  type Signature,
  type SignedIn,
  signInOf,
  WRONG_PINS,
} from "@/core/people";
import { now, nowIso } from "./clock";
import { type Db, db } from "./db/open";
import { people, signIns } from "./db/schema";
import { deviceIdOf, isDeviceOut } from "./devices";
import { type Guessed, guess } from "./guesses";
import { changePerson, hasLead, isPinOf } from "./people";
import { Forbidden, NotSignedIn, TooSoon } from "./refusals";

/** Who is at a door. */
export type Who = Pick<SignedIn, "personId" | "name" | "role">;

const DAY = 24 * 3600_000;
const signInSchema = strictObject({ person: yup.string().uuid("Pick your name").required("Pick your name"), pin: pinSchema });

/** How long somebody waits for a guess before theirs to be looked at, and how often that is asked, ms. */
const PATIENCE = 2000;
const ASK_EVERY = 50;

/** Asks again while another guess at the same is being looked at: a colleague signs in on another device. */
async function inTurn(ask: () => Promise<Guessed>): Promise<Guessed> {
  for (const until = performance.now() + PATIENCE; ; ) {
    const guessed = await ask();
    if (guessed.in || guessed.looked || !guessed.busy || performance.now() > until) return guessed;
    await new Promise((done) => setTimeout(done, ASK_EVERY));
  }
}

/** Looks at a PIN: one guess at a time, each after a wait that grows; the tenth wrong one in a row locks the person out. */
async function checkPin(personId: string, pin: string, at: Db): Promise<typeof people.$inferSelect> {
  const person = () => at.select().from(people).where(eq(people.id, personId)).get();
  const before = person();
  if (!before || before.leftAt) throw new BadInput("Nobody of that name works here", "person");
  if (!before.pin) throw new BadInput(`${before.name} has no PIN yet: a lead gives one, in Shop under People`, "pin");
  const locked = () =>
    new Forbidden(`${before.name} is locked out after ${WRONG_PINS} wrong PINs: a lead gives a new one, in Shop under People`);
  if (before.wrong >= WRONG_PINS) throw locked();
  const guessed = await inTurn(() => guess(`PIN of ${before.name}`, () => isPinOf(personId, pin, at)));
  if (guessed.in) {
    at.update(people).set({ wrong: 0 }).where(eq(people.id, personId)).run();
    return before;
  }
  if (!guessed.looked)
    throw new TooSoon(`Wait ${guessed.wait} s: too many wrong PINs, or another one is being looked at`, guessed.wait);
  at.update(people)
    .set({ wrong: sql`${people.wrong} + 1` })
    .where(eq(people.id, personId))
    .run();
  const left = WRONG_PINS - (person()?.wrong ?? 0);
  if (left <= 0) throw locked();
  throw new BadInput(`That is not the PIN of ${before.name}. ${left} more and only a lead lets ${before.name} in again`, "pin");
}

/** Signs a person in on a device. @param deviceId empty on the shop's own machine. */
export async function signIn(input: unknown, deviceId: string, at: Db = db()): Promise<SignedIn> {
  const { person, pin } = validate<{ person: string; pin: string }>(signInSchema, input);
  const { name, role } = await checkPin(person, pin, at);
  const made = {
    id: uuid(),
    personId: person,
    deviceId,
    role,
    key: randomBytes(32).toString("hex"),
    at: nowIso(),
  };
  at.insert(signIns).values(made).run();
  return { signIn: made.id, key: made.key, personId: person, name, role: role as Role, until: now() + OFFLINE_DAYS * DAY };
}

const ownPinSchema = strictObject({
  person: yup.string().uuid("Pick your name").required("Pick your name"),
  pin: pinSchema,
  newPin: newPinSchema,
});

/** Gives oneself another PIN, for the old one. */
export async function changeOwnPin(input: unknown, at: Db = db()): Promise<void> {
  const { person, pin, newPin } = validate<{ person: string; pin: string; newPin: string }>(ownPinSchema, input);
  await checkPin(person, pin, at);
  await changePerson(person, { pin: newPin }, at);
}

type SignInRow = typeof signIns.$inferSelect & {
  readonly name: string;
  readonly roleNow: string;
  readonly leftAt: string | null;
};
const rowOf = (id: string, at: Db): SignInRow | undefined => {
  const found = at
    .select({ signIn: signIns, name: people.name, roleNow: people.role, leftAt: people.leftAt })
    .from(signIns)
    .innerJoin(people, eq(people.id, signIns.personId))
    .where(eq(signIns.id, id))
    .get();
  return found && { ...found.signIn, name: found.name, roleNow: found.roleNow, leftAt: found.leftAt };
};

/** Who a request comes from: undefined where it names no sign-in that still opens doors. */
function whoIs({ headers }: Pick<Request, "headers">, at: Db = db()): Who | undefined {
  const proof = headers.get(SIGN_IN_HEADER) ?? "";
  const id = signInOf(proof);
  const row = id === undefined ? undefined : rowOf(id, at);
  if (!row || row.endedAt || Date.parse(row.at) + OFFLINE_DAYS * DAY < now() || !provesDoor(proof, row.id, row.key))
    return undefined;
  // It opens doors on the device that it was made on, and on no other.
  if (row.deviceId !== deviceIdOf(headers, at)) return undefined;
  return { personId: row.personId, name: row.name, role: row.role as Role };
}

/**
 * Who does this at a door. Throws NotSignedIn or Forbidden; undefined where the shop has no lead yet, and everybody may.
 */
export function allowed(request: Pick<Request, "headers">, act: Act, at: Db = db()): Who | undefined {
  if (!hasLead(at)) return undefined;
  const who = whoIs(request, at);
  if (!who) throw new NotSignedIn("Sign in first: pick your name and type your PIN");
  if (!may(who.role, act)) throw new Forbidden(mayNot(act));
  return who;
}

/** What an author made, under the name and the role that the server knows. */
export type Authored<T> = T & { readonly by: string; readonly role?: Role };

/**
 * Takes name and role of what was made from the sign-in that it was made under, whatever name stands on it; what was queued
 * by one person stays theirs when another is signed in.
 * @param fromOut a lead takes in what waited on a device that is out: nothing else comes from there.
 * Throws NotSignedIn where it must be signed anew, BadInput where it never can be taken.
 */
export function authored<T extends { readonly by: string; readonly at: Entry["at"]; readonly signed?: Signature }>(
  made: T,
  practice: boolean,
  at: Db = db(),
  fromOut = false,
): Authored<T> {
  if (!hasLead(at)) {
    const { signed: _, ...rest } = made;
    return rest as T;
  }
  const { signed } = made;
  if (!signed) throw new NotSignedIn(`${made.by} has not signed this in: sign in, and it goes out`);
  const row = rowOf(signed.signIn, at);
  if (!row) throw new NotSignedIn(`The sign-in of ${made.by} is not known here: sign in anew, and it goes out`);
  if (!isAsSigned({ ...made, signed }, row.key))
    throw new BadInput("This is not as it was signed: somebody changed it on its way, and it is not taken", "signed");
  if (!fromOut && isDeviceOut(row.deviceId, at))
    throw new BadInput(
      "It was made on a device that was put out: save it there as a file, and a lead looks through it",
      "signed",
    );
  const began = spanOf(made.at).from;
  // The clock of a practice bay runs ahead of the wall's.
  const after = (iso: string, days: number) => !practice && began > Date.parse(iso) + days * DAY;
  if (row.leftAt && after(row.leftAt, 0))
    throw new BadInput(`${row.name} works here no more: this was made since, and is not taken`, "signed");
  if (after(row.at, OFFLINE_DAYS + 1))
    throw new NotSignedIn(`${row.name} signed in more than ${OFFLINE_DAYS} days before this: sign in anew, and it goes out`);
  const role = (row.endedAt && after(row.endedAt, 0) ? row.roleNow : row.role) as Role;
  return { ...made, by: row.name, role };
}

/** An entry under its author; one that the author's role may not make is refused. In a practice bay everybody may. */
export function authoredEntry(entry: Entry, practice: boolean, at: Db = db(), fromOut = false): Authored<Entry> {
  const by = authored(entry, practice, at, fromOut);
  const act = entryAct(entry);
  if (!practice && !may(by.role, act)) throw new BadInput(mayNot(act), "kind");
  return by;
}

/**
 * Whether an entry that comes in a file stands under the sign-in it names: `unknown` where that was in another shop, or before
 * there were sign-ins.
 */
export function signatureOf(entry: JournalEntry, at: Db = db()): "holds" | "broken" | "unknown" {
  const { signed } = entry;
  const row = signed && rowOf(signed.signIn, at);
  // A job's number is the server's: its opening was signed without.
  if (!signed || !row || entry.kind === "opened") return "unknown";
  return isAsSigned({ ...asMade(entry), signed }, row.key) ? "holds" : "broken";
}
