import { describe, expect, it } from "vitest";
import { orificeFlow } from "../gas/orifice";
import { pressureDecay } from "../gas/vessel";
import { TOOLS } from ".";

/**
 * A formula as it is shown, as a function of its letters: brackets must close, and nothing may be left that is no number, letter
 * or sign. Implied products are none: every one is written.
 */
function parsed(shown: string): (letters: Readonly<Record<string, number>>) => number {
  const text = shown.replace(/\{/g, "(").replace(/\}/g, ")");
  let at = 0;
  const skip = () => {
    while (text[at] === " ") at++;
  };
  const take = (sign: string) => {
    skip();
    if (!text.startsWith(sign, at)) return false;
    at += sign.length;
    return true;
  };
  type Value = (letters: Readonly<Record<string, number>>) => number;
  const atom = (): Value => {
    skip();
    if (take("−")) {
      const of = atom();
      return (l) => -of(l);
    }
    if (take("∏")) {
      // Of what follows, for i = 0, 1, … as often as the letters say.
      const of = product();
      return (l) => Array.from({ length: l["∏"] as number }, (_, i) => of({ ...l, i })).reduce((a, b) => a * b, 1);
    }
    if (take("√")) {
      const of = atom();
      return (l) => Math.sqrt(of(l));
    }
    if (take("(")) {
      const of = sum();
      if (!take(")")) throw new Error(`a bracket is not closed in "${shown}"`);
      return of;
    }
    const word = /^(?:\d+(?:\.\d+)?|½|[\p{L}Δ][\p{L}\p{M}\p{N}_₀-₉]*)/u.exec(text.slice(at))?.[0];
    if (!word) throw new Error(`"${text.slice(at)}" in "${shown}" is no number and no letter`);
    at += word.length;
    if (word === "½") return () => 0.5;
    if (/^\d/.test(word)) return () => Number(word);
    if (word === "min" && take("(")) {
      const of = [sum()];
      while (take(",")) of.push(sum());
      if (!take(")")) throw new Error(`a bracket is not closed in "${shown}"`);
      return (l) => Math.min(...of.map((f) => f(l)));
    }
    return (l) => {
      if (!(word in l)) throw new Error(`nobody says what ${word} is`);
      return l[word] as number;
    };
  };
  const power = (): Value => {
    const base = atom();
    if (take("!")) return (l) => Array.from({ length: base(l) }, (_, i) => i + 1).reduce((a, b) => a * b, 1);
    if (!take("^")) return base;
    const of = atom();
    return (l) => base(l) ** of(l);
  };
  const product = (): Value => {
    let left = power();
    for (;;) {
      const [a, times, by] = [left, take("·"), false];
      if (times) {
        const b = power();
        left = (l) => a(l) * b(l);
      } else if (!by && take("/")) {
        const b = power();
        left = (l) => a(l) / b(l);
      } else return left;
    }
  };
  const sum = (): Value => {
    let left = product();
    for (;;) {
      const a = left;
      if (take("+")) {
        const b = product();
        left = (l) => a(l) + b(l);
      } else if (take("−")) {
        const b = product();
        left = (l) => a(l) - b(l);
      } else return left;
    }
  };
  const value = sum();
  skip();
  if (at < text.length) throw new Error(`"${text.slice(at)}" is left over of "${shown}"`);
  return value;
}

const formula = (id: string, name: string): string => {
  const all = TOOLS.find((t) => t.id === id)?.formula.split(";") ?? [];
  const found = all.map((part) => part.trim()).find((part) => part.startsWith(name));
  if (!found) throw new Error(`${id} shows no ${name}`);
  return found.slice(found.search(/[=:]/) + 1).trim();
};
const reckoned = (id: string, record: object) => {
  const tool = TOOLS.find((t) => t.id === id);
  if (!tool) throw new Error(`no ${id}`);
  const { rows } = tool.reckon(record as never);
  return (name: RegExp) => rows.find((r) => name.test(r.name))?.value.value as number;
};
const q = (value: number, unit: string, kind?: string) => ({ value, unit, ...(kind ? { kind } : {}) });

describe("a formula as it is shown", () => {
  it("closes its brackets, whatever it stands for", () => {
    for (const { id, formula: shown } of TOOLS) {
      let open = 0;
      for (const sign of shown.replace(/\{/g, "(").replace(/\}/g, ")")) {
        open += sign === "(" ? 1 : sign === ")" ? -1 : 0;
        expect(open, id).toBeGreaterThanOrEqual(0);
      }
      expect(open, id).toBe(0);
    }
  });

  it.each([
    [293.15, 101_325],
    [268.15, 80_000],
    [308.15, 101_325],
  ])("fills as it says, at %f K and %f Pa", (T, p_amb) => {
    const V = 30e-3;
    const p_set = 3200;
    const says = reckoned("fill", {
      volume: q(30, "L"),
      pressure: q(p_set, "Pa", "gauge"),
      flow: q(12, "L/min"),
      ambient: q(p_amb, "Pa", "absolute"),
      temperature: q(T - 273.15, "°C"),
    });
    const Q_n = 12 / 60_000;
    const Q = parsed(formula("fill", "Q"))({ Q_n, p_amb, T });
    expect(says(/^Settling/)).toBeCloseTo(parsed(formula("fill", "τ"))({ V, p_set, p_amb, Q }), 6);
    expect(says(/swept/)).toBeCloseTo(parsed(formula("fill", "arrival"))({ V, Q }), 6);
    expect(says(/heats/)).toBeCloseTo(parsed(formula("fill", "ΔT"))({ T, γ: 1.4, p_set, p_amb }), 6);
  });

  it.each([
    ["r > r*", 101_325 + 3238, 101_325],
    ["r ≤ r*", 301_325, 101_325],
  ])("passes through a hole as it says where %s", (where, before, behind) => {
    const T = 293.15;
    const d = 0.508e-3;
    const shown = formula("hole", where).split("=").at(-1) as string;
    const letters = { Cd: 0.61, A: (Math.PI * d * d) / 4, "p₁": before, γ: 1.4, R: 287.05, "T₁": T, r: behind / before };
    const { massFlow } = orificeFlow({ upstream: before, downstream: behind, temperature: T, diameter: d });
    expect(parsed(shown)(letters) / massFlow).toBeCloseTo(1, 6);
  });

  it("limits a boost test as it says", () => {
    const bar = (value: number) => q(value, "bar", "gauge");
    const says = reckoned("stage", {
      maxBoost: bar(1.4),
      part: bar(1.1),
      tool: bar(2),
      bladder: bar(0.9),
      ambient: q(1013, "hPa", "absolute"),
      temperature: q(20, "°C"),
    });
    const letters = { p_boost: 1.4, p_part: 1.1, p_tool: 2, p_bladder: 0.9, p_shop: 1.2 };
    expect(says(/./)).toBeCloseTo(parsed(formula("stage", "p"))(letters), 9);
  });

  /** Flow through a nozzle by enthalpy drop, kg/(s·m²), from the higher pressure to the lower. */
  const ψ = (high: number, low: number, T: number) => {
    const r = Math.max(low / high, 0.52828);
    const density = (high / (287.05 * T)) * r ** (1 / 1.4);
    return density * Math.sqrt(2 * 3.5 * 287.05 * T * (1 - r ** (0.4 / 1.4)));
  };

  it.each([
    [20, 19],
    [20, 16],
    [8, 5],
  ])("makes a hole of what a hand pump loses as it says, from %f to %f inHg", (from, to) => {
    const [outside, T, V] = [101_325, 293.15, 30e-6];
    const inHg = 3386.389;
    // The same loss drawn step by step, with a hole that takes about a minute.
    const area = 2e-10;
    let [pressure, integral, seconds] = [outside - from * inHg, 0, 0];
    while (pressure < outside - to * inHg) {
      const flow = ψ(outside, pressure, T);
      pressure += (area * flow * 287.05 * T * 0.01) / V;
      [integral, seconds] = [integral + flow * 0.01, seconds + 0.01];
    }
    const CdA = parsed(formula("held", "CdA").replace("∫|ψ| dt", "S"))({ V, Δp: (from - to) * inHg, R: 287.05, T, S: integral });
    expect(CdA / area).toBeCloseTo(1, 2);
    const says = reckoned("held", {
      volume: q(30, "mL"),
      start: q(from, "inHg", "vacuum"),
      end: q(to, "inHg", "vacuum"),
      seconds,
      ambient: q(outside, "Pa", "absolute"),
      temperature: q(20, "°C"),
    });
    expect(says(/hole/i) / 1000 / Math.sqrt((4 / Math.PI) * (CdA / 0.61))).toBeCloseTo(1, 1.5);
  });

  it.each([0, 1.5])("lets a shut vessel fall as it says, %f K above its walls", (excess) => {
    const [outside, wall, V, tau, CdA] = [101_325, 293.15, 30e-3, 25, 2e-7];
    const shown = formula("decay", "dp/dt");
    const at = {
      volume: V,
      effectiveArea: CdA,
      ambient: outside,
      wallTemperature: wall,
      drift: 0,
      gasExcess: excess,
      wallTime: tau,
    };
    const start = 2500;
    const [, after] = pressureDecay(at, start, [0, 1e-3]);
    const T = wall + excess;
    const p = outside + start;
    const letters = { γ: 1.4, R: 287.05, T, ṁ: CdA * ψ(p, outside, T), V, p, T_w: wall, τ: tau };
    expect(parsed(shown)(letters) / (((after as number) - start) / 1e-3)).toBeCloseTo(1, 3);
  });

  it("counts drives as it says", () => {
    const chance = parsed(formula("drive", "random"))({ x: 120, n: 3, m̄: 25 });
    expect(chance).toBeCloseTo((1 + 120 / 75) ** -3, 12);
    const says = reckoned("drive", { kind: "random", recorded: [20, 25, 30], clean: [70, 50] });
    expect(says(/Chance/)).toBeCloseTo(100 * chance, 6);
  });

  it("counts runs that set in and cold starts as it says", () => {
    const runs = reckoned("drive", { kind: "sets-in", recorded: [14, 22, 17], clean: [30, 31, 40, 28] });
    expect(runs(/Chance/)).toBeCloseTo(100 * parsed(formula("drive", "sets in"))({ n: 3, k: 4 }), 6);
    const starts = reckoned("drive", { kind: "cold-starts", came: 3, of: 8, starts: 5 });
    expect(starts(/Chance/)).toBeCloseTo(100 * parsed(formula("drive", "cold starts"))({ N: 8, k: 3, "∏": 5 }), 6);
  });

  it("tells λ as it says", () => {
    const gases = { CO: 0.5, "CO₂": 14.2, "O₂": 0.9, NO: 0.03, HC: 0.012, H: 1.7261, O: 0.0176 };
    const says = reckoned("lambda", {
      fuel: "petrol",
      co: 0.5,
      co2: 14.2,
      o2: 0.9,
      no: 300,
      hc: 120,
    });
    expect(says(/λ|lambda/i)).toBeCloseTo(parsed(formula("lambda", "λ"))(gases), 3);
  });

  it("refuses what does not close or names what nobody knows", () => {
    expect(() => parsed("V/(Q·2")).toThrow(/not closed/);
    expect(() => parsed("V/Q)")).toThrow(/left over/);
    expect(() => parsed("V/Q")({ V: 1 })).toThrow(/what Q is/);
  });
});
