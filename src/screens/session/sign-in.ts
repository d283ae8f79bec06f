"use client";

import { bytesToHex, randomBytes } from "@noble/hashes/utils.js";
import { useEffect, useState } from "react";
import {
  AUTO_LOCK,
  doorProof,
  OFFLINE_DAYS,
  type Role,
  SIGN_IN_HEADER,
  type SignedIn,
  signed,
  unwrapKey,
  WRONG_OFFLINE,
  wrapKey,
} from "@/core/people";
import { timeNow } from "./clock";
import { type KeptSignIn, keepSignIn, keptSignIns } from "./device-store";
import { askToPersist } from "./persistence";
import { load, save } from "./storage";

/** Who is signed in on this device, and the key that what they make is signed with: forgotten once it is locked. */
const KEY = "pelota.signedIn";
/** When the device was last touched, ms since 1970, and after how much it locks, ms */
const TOUCHED = "pelota.touched";
const LOCK_AFTER = "pelota.lockAfter";
/** Roles by the sign-ins that were on this device: what waits is shown under the role it was made under */
const ROLES_KEY = "pelota.roles";
const ROLES_KEPT = 50;

export const lockAfter = (): number => load<number>(LOCK_AFTER) ?? AUTO_LOCK;
export function setLockAfter(ms: number): void {
  save(LOCK_AFTER, ms);
  tell();
}

const listeners = new Set<() => void>();
const tell = () => {
  for (const one of listeners) one();
};

/** Who is signed in now; undefined where nobody is, or nobody has touched the device for so long that it is locked. */
export function signedInNow(): SignedIn | undefined {
  const here = load<SignedIn>(KEY);
  if (!here) return undefined;
  const idle = Date.now() - (load<number>(TOUCHED) ?? 0);
  if (idle < lockAfter() && Date.now() < here.until) return here;
  lock();
  return undefined;
}

/** Somebody is in: remembered on this device until it is locked. */
function enter(here: SignedIn): void {
  save(TOUCHED, Date.now());
  save(KEY, here);
  const roles = Object.entries({ ...load<Record<string, Role>>(ROLES_KEY), [here.signIn]: here.role });
  save(ROLES_KEY, Object.fromEntries(roles.slice(-ROLES_KEPT)));
  tell();
}

/** Forgets who was in, and their key. What was typed stays. */
export function lock(): void {
  save(KEY, undefined);
  tell();
}

export const knownRoles = (): ReadonlyMap<string, Role> => new Map(Object.entries(load<Record<string, Role>>(ROLES_KEY) ?? {}));

/** How often a touch is noted, and idleness looked at, ms. */
const NOTED = 15_000;

/** Who is signed in, drawn anew when somebody signs in, here or in another tab, and when the device locks itself. */
export function useSignedIn(): SignedIn | undefined {
  const [here, setHere] = useState<SignedIn>();
  useEffect(() => {
    const look = () =>
      setHere((before) => {
        const now = signedInNow();
        return now?.signIn === before?.signIn ? before : now;
      });
    const touched = () => {
      if (Date.now() - (load<number>(TOUCHED) ?? 0) > NOTED && signedInNow()) save(TOUCHED, Date.now());
    };
    look();
    listeners.add(look);
    window.addEventListener("storage", look);
    window.addEventListener("pointerdown", touched, true);
    window.addEventListener("keydown", touched, true);
    const clock = setInterval(look, NOTED);
    return () => {
      listeners.delete(look);
      window.removeEventListener("storage", look);
      window.removeEventListener("pointerdown", touched, true);
      window.removeEventListener("keydown", touched, true);
      clearInterval(clock);
    };
  }, []);
  return here;
}

/** Signs what is made now, with who makes it and when; as it was where nobody is in. */
export function signedHere<T extends object>(made: T): T {
  const here = signedInNow();
  if (!here) return made;
  // Nobody makes anything before they were in, however the clock was set meanwhile.
  const madeAt = new Date(Math.max(timeNow(), here.since ?? 0)).toISOString();
  return signed({ ...made, person: here.personId, madeAt }, here.signIn, here.key);
}

/** The header that tells a door who asks. */
export function doorHeaders(): Record<string, string> {
  const here = signedInNow();
  return here ? { [SIGN_IN_HEADER]: doorProof(here.signIn, here.key) } : {};
}

/** Lets a person in, and keeps their key for when the server is away: nothing without the PIN. */
export async function enterWith(here: SignedIn, pin: string): Promise<void> {
  // However far a server's clock ran wild, nobody is let in for longer than that without it.
  const until = Math.min(here.until, Date.now() + OFFLINE_DAYS * 24 * 3600_000);
  const { key, ...known } = { ...here, until };
  // A device that cannot keep it works with the server alone.
  await keepSignIn({ ...known, ...(await wrapKey(key, pin, bytesToHex(randomBytes(16)))), wrong: 0 }).catch(() => {});
  enter({ ...here, until });
  // What they make from now on is to stay here until it has gone up.
  void askToPersist().catch(() => {});
}

/** Who may come in on this device without the server, now. */
export async function knownHere(): Promise<KeptSignIn[]> {
  const all = await keptSignIns().catch(() => []);
  return all.filter((k) => k.until > Date.now() && k.wrong < WRONG_OFFLINE);
}

/** Lets a person in without the server, by what this device knew of the PIN lately. @returns what was wrong. */
export async function enterOffline(personId: string, pin: string): Promise<string | undefined> {
  const kept = (await knownHere()).find((k) => k.personId === personId);
  if (!kept) return "The server is not there, and this device does not know that PIN yet: sign in once while it is";
  const key = await unwrapKey(kept, pin);
  if (key === undefined) {
    const wrong = kept.wrong + 1;
    await keepSignIn({ ...kept, wrong });
    return wrong < WRONG_OFFLINE
      ? `That is not the PIN of ${kept.name}. ${WRONG_OFFLINE - wrong} more, and only the server lets ${kept.name} in here again`
      : `Too many wrong PINs: ${kept.name} signs in once the server is back`;
  }
  await keepSignIn({ ...kept, wrong: 0 });
  const { signIn, name, role, since, until } = kept;
  enter({ signIn, key, personId, name, role, until, ...(since === undefined ? {} : { since }) });
  return undefined;
}
