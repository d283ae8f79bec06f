import type { Role } from "./roles";

/** Somebody whose name stands in the shop's journals. */
export interface Person {
  readonly id: string;
  readonly name: string;
  readonly role: Role;
  /** Nobody signs in without one */
  readonly hasPin: boolean;
  /** Works here no more: the name stays under what was written */
  readonly left: boolean;
}

/** A sign-in as the device that asked for it is told: the key is told once, and never again. */
export interface SignedIn {
  readonly personId: string;
  readonly name: string;
  readonly role: Role;
  readonly signIn: string;
  /** 32 bytes, hex: what is made meanwhile is signed with it */
  readonly key: string;
  /** When that was, by the server's clock, ms since 1970; not known of one from before it was told */
  readonly since?: number;
  /** Until then the device lets the person in without the server, ms since 1970 */
  readonly until: number;
}

/** A device of the shop. */
export interface Device {
  readonly id: string;
  readonly name: string;
  readonly enrolledAt: string;
  readonly lastSeen: string;
  /** Put out by a lead, by another passphrase, or not seen for too long */
  readonly out: boolean;
}
