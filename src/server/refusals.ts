/** What is there already and differs: somebody else's work must not be overwritten. */
export class Conflict extends Error {}
/** There is no such thing here. */
export class NotFound extends Error {}
