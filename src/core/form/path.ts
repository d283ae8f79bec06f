/** A place in nested data: names and numbers joined by dots, as in "rest.start" or "cycles.0.shut". */
export type Path = string;

const keysOf = (path: Path) => path.split(".");

/** Yup's way of writing a path, "cycles[0].shut", as one of ours. */
export const pathOf = (yup: string): Path => yup.replace(/\[(\d+)\]/g, ".$1").replace(/^\./, "");

/** Value at a path; undefined where the way there ends. Only own properties count. */
export function getIn(data: unknown, path: Path): unknown {
  let at: unknown = data;
  for (const key of keysOf(path)) {
    if (typeof at !== "object" || at === null || !Object.hasOwn(at, key)) return undefined;
    at = (at as Record<string, unknown>)[key];
  }
  return at;
}

/** The same data with a value put at a path; what is missing on the way is made. Nothing is changed in place. */
export function setIn<T extends object>(data: T, path: Path, value: unknown): T {
  const [key, ...rest] = keysOf(path) as [string, ...string[]];
  const copy = (Array.isArray(data) ? [...data] : { ...data }) as Record<string, unknown>;
  const below = copy[key];
  const fresh = /^\d+$/.test(rest[0] ?? "") ? [] : {};
  copy[key] = rest.length === 0 ? value : setIn(typeof below === "object" && below ? below : fresh, rest.join("."), value);
  return copy as T;
}
