import { hmac } from "@noble/hashes/hmac.js";
import { scryptAsync } from "@noble/hashes/scrypt.js";
import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex, hexToBytes, utf8ToBytes } from "@noble/hashes/utils.js";
import { canonicalJson } from "../canonical";

/** A device that knew a PIN lately lets its person in without the server for so many days. */
export const OFFLINE_DAYS = 7;
/** A device that nobody touches is locked after this, ms; what was typed stays. */
export const AUTO_LOCK = 10 * 60_000;
/** So many wrong PINs without the server, and only the server lets that person in again. */
export const WRONG_OFFLINE = 10;

/** Wording to a device that a lead has put out; what waits on it is kept. */
export const DEVICE_OUT = "This device was removed from the shop: what waits on it is kept, and leaves it as a file";

/** The sign-in that something was made under, and the proof that whoever made it held its key. */
export interface Signature {
  readonly signIn: string;
  /** HMAC-SHA256 (RFC 2104) of what was made, hex */
  readonly mac: string;
}

const sign = (key: string, text: string) => bytesToHex(hmac(sha256, hexToBytes(key), utf8ToBytes(text)));

/** Compared without telling by the time taken where two differ. */
function same(a: string, b: string): boolean {
  if (a.length !== b.length) return false;
  let differs = 0;
  for (let i = 0; i < a.length; i++) differs |= a.charCodeAt(i) ^ b.charCodeAt(i);
  return differs === 0;
}

/** Signed content: everything but itself, and the name, which the server takes from the sign-in. */
function signedText(made: object): string {
  const { signed: _, by: __, ...rest } = made as { readonly signed?: unknown; readonly by?: unknown };
  return canonicalJson(rest);
}

/**
 * Signs an entry, or the opening of a job.
 * @param key of the sign-in, 32 bytes in hex.
 */
export const signed = <T extends object>(made: T, signIn: string, key: string): T & { readonly signed: Signature } => ({
  ...made,
  signed: { signIn, mac: sign(key, signedText(made)) },
});

/** Whether what was made is as it was signed. @param key of the sign-in that it names. */
export const isAsSigned = (made: object & { readonly signed: Signature }, key: string): boolean =>
  same(made.signed.mac, sign(key, signedText(made)));

/** Reason that a refusal is about where whoever made something must sign in anew. */
export const SIGN_IN = "sign-in";

/** Carries the proof of a sign-in. */
export const SIGN_IN_HEADER = "x-pelota-sign-in";

/** Headers that say under which sign-in a request comes; the key itself never travels again. */
export const doorProof = (signIn: string, key: string): string => `${signIn}.${sign(key, "door")}`;

/** The sign-in that a request names; undefined for what is none. */
export const signInOf = (proof: string): string | undefined => /^([0-9a-f-]{36})\.[0-9a-f]{64}$/.exec(proof)?.[1];

export const provesDoor = (proof: string, signIn: string, key: string): boolean => same(proof, doorProof(signIn, key));

/** A sign-in's key as a device keeps it for when the server is away: nothing without the PIN. */
export interface WrappedKey {
  /** 16 bytes, hex */
  readonly salt: string;
  /** The key, each bit turned by what scrypt (RFC 7914) makes of the PIN, hex */
  readonly wrapped: string;
  /** Tells a right PIN from a wrong one */
  readonly check: string;
}

const xor = (a: Uint8Array, b: Uint8Array) => a.map((byte, i) => byte ^ (b[i] as number));
const padOf = (pin: string, salt: string) =>
  scryptAsync(utf8ToBytes(pin), hexToBytes(salt), { N: 2 ** 14, r: 8, p: 1, dkLen: 32 });

/** @param salt 16 random bytes, hex, used for nothing else. */
export async function wrapKey(key: string, pin: string, salt: string): Promise<WrappedKey> {
  const wrapped = bytesToHex(xor(hexToBytes(key), await padOf(pin, salt)));
  return { salt, wrapped, check: sign(key, "kept") };
}

/** The key, where the PIN is right; undefined where it is not. */
export async function unwrapKey({ salt, wrapped, check }: WrappedKey, pin: string): Promise<string | undefined> {
  const key = bytesToHex(xor(hexToBytes(wrapped), await padOf(pin, salt)));
  return same(sign(key, "kept"), check) ? key : undefined;
}
