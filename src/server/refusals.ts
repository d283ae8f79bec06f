/** A conflict with something that is there already and differs: somebody else's work must not be overwritten. */
export class Conflict extends Error {}
/** Nobody is signed in, or what was made must be signed anew: it waits, and is not lost. */
export class NotSignedIn extends Error {}
/** Whoever is signed in may not do this, or what came was changed on its way. */
export class Forbidden extends Error {}
/** One more guess before the wait is over. */
export class TooSoon extends Error {
  constructor(
    message: string,
    /** s */
    readonly wait: number,
  ) {
    super(message);
  }
}
/** There is no such thing here. */
export class NotFound extends Error {}
