/** Texts whose values are kept at a time: the journals of the jobs on the bench. */
const KEPT = 4000;
/** Longer texts cost more to keep than to read again. */
const LONGEST = 256 * 1024;
const values = new Map<string, unknown>();
const frozen = (_key: string, value: unknown) => Object.freeze(value);

/**
 * Value of a stored text, parsed; the same text gives the same object, so that verdicts and models known by their object are
 * found again. It is frozen through and through: what one reader changed another would be told.
 */
export function parsed<T>(text: string): T {
  const known = values.get(text);
  // Asked again, it moves to the end: what was not asked for longest goes first.
  values.delete(text);
  const value = known ?? JSON.parse(text, frozen);
  if (text.length <= LONGEST) values.set(text, value);
  if (values.size > KEPT) values.delete(values.keys().next().value as string);
  return value as T;
}
