import { canonicalJson } from "../canonical";
import { LIMIT_FIELDS } from "./limits";
import { HOUSE_QUESTIONS, type HouseQuestion, LIMIT_IDS, type Shop } from "./settings";

const same = (a: unknown, b: unknown) => canonicalJson(a ?? null) === canonicalJson(b ?? null);

/**
 * Two changes of one shop put together, field by field: what only one of them changed is taken as that one has it.
 * @param base what both began with; @param mine what is to be saved; @param theirs what was saved meanwhile.
 * @param prefer whose value a field has that both changed otherwise. @returns the shop, and those fields in words.
 */
export function mergeShops(
  base: Shop,
  mine: Shop,
  theirs: Shop,
  prefer: "theirs" | "mine" = "theirs",
): { readonly merged: Shop; readonly clashes: readonly string[] } {
  const clashes: string[] = [];
  const field = <T>(was: T, here: T, there: T, words: string): T => {
    if (same(here, there) || same(here, was)) return there;
    if (same(there, was)) return here;
    clashes.push(words);
    return prefer === "mine" ? here : there;
  };
  const listed = <T extends { readonly id: string; readonly name: string }>(
    kind: string,
    of: (shop: Shop) => readonly T[],
  ): T[] => {
    const find = (shop: Shop, id: string) => of(shop).find((one) => one.id === id);
    const ids = [...new Set([...of(theirs), ...of(mine), ...of(base)].map((one) => one.id))];
    return ids.flatMap((id) => {
      const [was, here, there] = [find(base, id), find(mine, id), find(theirs, id)];
      return field(was, here, there, `the ${kind} ${(there ?? here ?? was)?.name}`) ?? [];
    });
  };
  const merged: Shop = {
    name: field(base.name, mine.name, theirs.name, "the shop's name"),
    limits: Object.assign(
      {},
      ...LIMIT_IDS.map((id) => ({
        [id]: field(base.limits[id], mine.limits[id], theirs.limits[id], `the limit “${LIMIT_FIELDS[id].name}”`),
      })),
    ),
    house: Object.assign(
      {},
      ...(Object.keys(HOUSE_QUESTIONS) as HouseQuestion[]).map((id) => ({
        [id]: field(base.house[id], mine.house[id], theirs.house[id], `the house method “${HOUSE_QUESTIONS[id].asks}”`),
      })),
    ),
    machines: listed("machine", (shop) => shop.machines),
    instruments: listed("instrument", (shop) => shop.instruments),
  };
  return { merged, clashes };
}
