/** The one clock of the server, ms since 1970. */
export const now = () => Date.now();
export const nowIso = () => new Date(now()).toISOString();
