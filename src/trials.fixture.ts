/** How large a trial is: small in the tests, at a size that finds what it is for, and in full in `npm run bench -- trials`. */
export const trials = (usual: number, full: number): number => (process.env.PELOTA_TRIALS === "full" ? full : usual);
