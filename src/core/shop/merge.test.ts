import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { mergeShops } from "./merge";
import { DEFAULT_SHOP, LIMIT_IDS, type Machine, type Shop, shopSchema } from "./settings";

const machine = (id: string, name: string): Machine => ({
  id,
  name,
  kind: "low-pressure",
  ratedPressure: { value: 13, unit: "inH2O" },
  maxFlow: { value: 12, unit: "L/min" },
  autoOff: 300,
  service: [],
});

/** One change of a shop, made by itself. */
type Change = (shop: Shop) => Shop;
const change: fc.Arbitrary<Change> = fc.oneof(
  fc.constantFrom("North", "South").map(
    (name): Change =>
      (s) => ({ ...s, name }),
  ),
  fc.tuple(fc.constantFrom(...LIMIT_IDS.slice(0, 3)), fc.constantFrom(1, 2)).map(
    ([id, value]): Change =>
      (s) => ({ ...s, limits: { ...s.limits, [id]: { value, source: "set by this shop" } } }),
  ),
  fc.constantFrom("product", "sum").map(
    (totalTrim): Change =>
      (s) => ({ ...s, house: { ...s.house, totalTrim } as Shop["house"] }),
  ),
  fc.tuple(fc.constantFrom("a", "b", "c"), fc.constantFrom("Old", "New")).map(
    ([id, name]): Change =>
      (s) => ({
        ...s,
        machines: [...s.machines.filter((m) => m.id !== id), machine(id, name)],
      }),
  ),
  fc.constantFrom("a", "b").map(
    (id): Change =>
      (s) => ({ ...s, machines: s.machines.filter((m) => m.id !== id) }),
  ),
);
const apply = (changes: readonly Change[], shop: Shop) => changes.reduce((s, c) => c(s), shop);

/** Every field by its name, as text; what is not there is not among them. */
const fieldsOf = ({ name, limits, house, machines }: Shop) =>
  new Map<string, string>([
    ["name", name],
    ...Object.entries(limits).map(([k, v]): [string, string] => [`limit ${k}`, JSON.stringify(v)]),
    ...Object.entries(house).map(([k, v]): [string, string] => [`house ${k}`, String(v)]),
    ...machines.map((m): [string, string] => [`machine ${m.id}`, JSON.stringify(m)]),
  ]);

const BASE: Shop = { ...DEFAULT_SHOP, machines: [machine("a", "Old"), machine("b", "Old")] };

describe("two tablets that save the shop", () => {
  it("keep what either changed, and say where both changed the same otherwise (property)", () => {
    fc.assert(
      fc.property(fc.array(change, { maxLength: 5 }), fc.array(change, { maxLength: 5 }), (a, b) => {
        const [mine, theirs] = [apply(a, BASE), apply(b, BASE)];
        const { merged, clashes } = mergeShops(BASE, mine, theirs);
        const [was, m, t, out] = [BASE, mine, theirs, merged].map(fieldsOf) as Map<string, string>[];
        const apart = [...new Set([...(was?.keys() ?? []), ...(m?.keys() ?? []), ...(t?.keys() ?? [])])].filter((key) => {
          const [w, x, y, o] = [was, m, t, out].map((f) => f?.get(key));
          if (x === y || y === w) expect(o).toBe(x);
          else if (x === w) expect(o).toBe(y);
          else return true;
          return false;
        });
        expect(clashes).toHaveLength(apart.length);
        for (const key of apart) expect(out?.get(key)).toBe(t?.get(key));
        const over = fieldsOf(mergeShops(BASE, mine, theirs, "mine").merged);
        for (const key of new Set([...over.keys(), ...(out?.keys() ?? [])]))
          expect(over.get(key)).toBe(apart.includes(key) ? m?.get(key) : out?.get(key));
        expect(shopSchema.isValidSync(merged)).toBe(true);
      }),
    );
  });

  it("are told in the words of the screen what they clash in", () => {
    const named = (name: string): Shop => ({ ...BASE, machines: [machine("a", name), machine("b", "Old")] });
    expect(mergeShops(BASE, named("Mine"), named("Theirs")).clashes).toEqual(["the machine Theirs"]);
    const house = (totalTrim: "product" | "sum"): Shop => ({ ...BASE, house: { ...BASE.house, totalTrim } });
    const other = BASE.house.totalTrim === "sum" ? "product" : "sum";
    expect(mergeShops(house("sum"), house(other), house("sum")).clashes).toEqual([]);
    expect(mergeShops(BASE, { ...BASE, name: "Mine" }, { ...BASE, name: "Theirs" }).clashes).toEqual(["the shop's name"]);
  });
});
