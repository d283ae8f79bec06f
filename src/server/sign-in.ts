import { randomBytes } from "node:crypto";
import { and, eq } from "drizzle-orm";
import { v4 as uuid } from "uuid";
import * as yup from "yup";
import { BadInput, strictObject, validate } from "@/core/input";
import {
  type Act,
  may,
  mayNot,
  newPinSchema,
  OFFLINE_DAYS,
  pinSchema,
  provesDoor,
  type Role,
  SIGN_IN_HEADER,
  type SignedIn,
  signInOf,
} from "@/core/people";
import { now, nowIso } from "./clock";
import { type Db, db } from "./db/open";
import { people, signIns } from "./db/schema";
import { deviceIdOf, deviceName } from "./devices";
import { changePerson, hasLead, isPinOf } from "./people";
import { type Guessed, guess } from "./rate-limit";
import { Forbidden, NotSignedIn, TooSoon } from "./refusals";
import { logged } from "./security-log";

/** Who is at a door. */
export type Who = Pick<SignedIn, "personId" | "name" | "role">;

const DAY = 24 * 3600_000;
/** So far a clock may be set back without anybody's signing in again, ms */
const AHEAD = 3600_000;
const signInSchema = strictObject({
  person: yup.string().uuid("Pick your name").required("Pick your name"),
  pin: pinSchema,
});
/** Time and author of entries made under a sign-in of today says by whom and when. What does not counts as made when it came, whatever time it gives itself. */
const FORM = 2;

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

/**
 * From where a PIN is guessed. Waits are a device's own where its person has been in before: no colleague's guesses elsewhere
 * keep them out. All devices that they never used share one.
 */
function sideOf(personId: string, deviceId: string, at: Db): string {
  const used = at
    .select({ id: signIns.id })
    .from(signIns)
    .where(and(eq(signIns.personId, personId), eq(signIns.deviceId, deviceId)))
    .limit(1)
    .get();
  return used ? deviceId || "this machine" : "where they were never in";
}

/** Looks at a PIN: one guess at a time from one side, each after a wait that grows. */
async function checkPin(personId: string, pin: string, deviceId: string, at: Db): Promise<typeof people.$inferSelect> {
  const person = at.select().from(people).where(eq(people.id, personId)).get();
  if (!person || person.leftAt) throw new BadInput("Nobody of that name works here", "person");
  if (!person.pin) throw new BadInput(`${person.name} has no PIN yet: a lead gives one, in Shop under People`, "pin");
  const side = sideOf(personId, deviceId, at);
  const guessed = await inTurn(() => guess(`PIN of ${person.name}, ${side}`, () => isPinOf(personId, pin, at)));
  if (guessed.in) return person;
  if (!guessed.looked)
    throw new TooSoon(`Wait ${guessed.wait} s: too many wrong PINs, or another one is being looked at`, guessed.wait);
  logged({ what: "wrong-pin", who: person.name, device: deviceName(deviceId, at), detail: "" }, at);
  const wait = guessed.wait > 0 ? ` The next one is looked at in ${guessed.wait} s` : "";
  throw new BadInput(`That is not the PIN of ${person.name}.${wait}`, "pin");
}

/** Signs a person in on a device. @param deviceId empty on the shop's own machine. */
export async function signIn(input: unknown, deviceId: string, at: Db = db()): Promise<SignedIn> {
  const { person, pin } = validate<{ person: string; pin: string }>(signInSchema, input);
  const { name, role } = await checkPin(person, pin, deviceId, at);
  const made = {
    id: uuid(),
    personId: person,
    deviceId,
    role,
    key: randomBytes(32).toString("hex"),
    at: nowIso(),
    form: FORM,
  };
  at.insert(signIns).values(made).run();
  const since = Date.parse(made.at);
  return { signIn: made.id, key: made.key, personId: person, name, role: role as Role, since, until: since + OFFLINE_DAYS * DAY };
}

const ownPinSchema = strictObject({
  person: yup.string().uuid("Pick your name").required("Pick your name"),
  pin: pinSchema,
  newPin: newPinSchema,
});

/** Gives oneself another PIN, for the old one. */
export async function changeOwnPin(input: unknown, deviceId: string, at: Db = db()): Promise<void> {
  const { person, pin, newPin } = validate<{ person: string; pin: string; newPin: string }>(ownPinSchema, input);
  const { name } = await checkPin(person, pin, deviceId, at);
  await changePerson(person, { pin: newPin }, at);
  logged({ what: "pin-changed", who: name, device: deviceName(deviceId, at), detail: "their own" }, at);
}

export type SignInRow = typeof signIns.$inferSelect & {
  readonly name: string;
  readonly roleNow: string;
  readonly leftAt: string | null;
};
/** A sign-in, with the name of who signed in and what they are by now. */
export const signInRow = (id: string, at: Db): SignInRow | undefined => {
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
  const row = id === undefined ? undefined : signInRow(id, at);
  // One from a time that is still to come was made by a clock that ran wild: it would hold for as long.
  const since = now() - Date.parse(row?.at ?? "");
  if (!row || row.endedAt || !(since >= -AHEAD && since <= OFFLINE_DAYS * DAY) || !provesDoor(proof, row.id, row.key))
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
