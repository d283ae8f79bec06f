type Json = unknown;
const isPlain = (value: Json): value is Record<string, Json> =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/**
 * A draft that was kept, in the shape that the form has today: what has another type than it has now, and what is new, is
 * as in an empty form; fields that an empty form leaves out are kept.
 * @param empty the form with nothing typed. @param kept what storage gave back, of whatever version or damage.
 */
export function draftOver<T>(empty: T, kept: Json): T {
  if (empty === undefined || empty === null) return (kept ?? empty) as T;
  if (Array.isArray(empty)) {
    if (!Array.isArray(kept)) return empty;
    const [first] = empty as Json[];
    return (first === undefined ? kept : kept.map((one) => draftOver(first, one))) as T;
  }
  if (isPlain(empty)) {
    if (!isPlain(kept)) return empty;
    const fields = Object.entries(empty).map(([key, value]) => [
      key,
      Object.hasOwn(kept, key) ? draftOver(value, kept[key]) : value,
    ]);
    return { ...kept, ...Object.fromEntries(fields) } as T;
  }
  return typeof kept === typeof empty ? (kept as T) : empty;
}
