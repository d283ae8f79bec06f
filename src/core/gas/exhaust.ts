/** Dry volume shares of an exhaust: CO, CO₂ and O₂ in percent; HC (as hexane) and NO in ppm. */
export interface ExhaustGas {
  readonly co: number;
  readonly co2: number;
  readonly o2: number;
  readonly hc: number;
  readonly no?: number;
}

/** Atoms of hydrogen and oxygen in the fuel for each of carbon. */
export const FUELS = {
  petrol: { hydrogen: 1.7261, oxygen: 0.0176 },
  diesel: { hydrogen: 1.86, oxygen: 0 },
  e85: { hydrogen: 2.74, oxygen: 0.38 },
  lpg: { hydrogen: 2.525, oxygen: 0 },
  cng: { hydrogen: 4, oxygen: 0 },
} as const;
export type GasFuel = keyof typeof FUELS;

/** Water-gas equilibrium at the temperature that exhaust is frozen at. */
const WATER_GAS = 3.5;
/** ppm in a percent. */
const PPM = 1e4;

/**
 * Excess-air ratio λ from an exhaust's composition (Brettschneider 1979):
 * λ = {CO₂ + CO/2 + O₂ + NO/2 + (H/4 · 3.5/(3.5 + CO/CO₂) − O/2)·(CO₂ + CO)} / {(1 + H/4 − O/2)·(CO₂ + CO + 6·HC)},
 * shares in percent. Says how much air there is beside the fuel, not where it came in.
 * @returns λ, 1 where there is just enough. Throws RangeError without CO₂ or for shares that cannot be.
 */
export function lambdaOf({ co, co2, o2, hc, no = 0 }: ExhaustGas, fuel: GasFuel = "petrol"): number {
  if (!(co2 > 0))
    throw new RangeError("Without carbon dioxide nothing burned: the probe was not in the exhaust, or the engine off");
  if (![co, o2, hc, no].every((x) => Number.isFinite(x) && x >= 0) || co + co2 + o2 > 100)
    throw new RangeError("These shares cannot be: none is negative, and together they are no more than all of it");
  const { hydrogen, oxygen } = FUELS[fuel];
  const carbon = co2 + co;
  const water = (hydrogen / 4) * (WATER_GAS / (WATER_GAS + co / co2)) - oxygen / 2;
  const needed = (1 + hydrogen / 4 - oxygen / 2) * (carbon + (6 * hc) / PPM);
  return (co2 + co / 2 + o2 + no / PPM / 2 + water * carbon) / needed;
}

/** Maximum permissible error of a class I analyser: absolute, and as a share of what it shows (OIML R 99). */
const MAY_BE_WRONG: Readonly<Record<keyof ExhaustGas, readonly [absolute: number, share: number]>> = {
  co: [0.06, 0.03],
  co2: [0.4, 0.04],
  o2: [0.1, 0.05],
  hc: [12, 0.05],
  no: [25, 0.05],
};

/**
 * λ with how far the analyser may have it wrong, every share at the worse of its errors, added in quadrature.
 * @returns value, low and high of a 95 % interval. Throws RangeError as `lambdaOf` does.
 */
export function lambdaWithin(gas: ExhaustGas, fuel: GasFuel = "petrol"): { value: number; low: number; high: number } {
  const value = lambdaOf(gas, fuel);
  const errors = (Object.entries(MAY_BE_WRONG) as [keyof ExhaustGas, readonly [number, number]][]).map(
    ([name, [absolute, share]]) => {
      const read = gas[name] ?? 0;
      if (name === "no" && gas.no === undefined) return 0;
      return lambdaOf({ ...gas, [name]: read + Math.max(absolute, share * read) }, fuel) - value;
    },
  );
  const wrong = Math.hypot(...errors);
  return { value, low: value - wrong, high: value + wrong };
}

/** Oxygen of dry air, %, and the nitrogen that comes with each part of it. */
const AIR_OXYGEN = 20.9;
const NITROGEN = 3.774;

/**
 * Why gases cannot be those of this fuel: carbon and oxygen bound them. CO₂ ≤ CO₂max = 100/(1 + 3.774·(1 + H/4 − O/2)) of the dry gas,
 * O₂ ≤ 20.9·(1 − CO₂/CO₂max), and CO₂ + CO + 6·HC ≥ CO₂max·(1 − O₂/20.9): what burned is in one of them. Each with what a class I
 * analyser may be wrong by (OIML R 99). @returns undefined for gases that can be.
 */
export function impossibleGas(gas: ExhaustGas, fuel: GasFuel = "petrol"): string | undefined {
  const { hydrogen, oxygen } = FUELS[fuel];
  const most = 100 / (1 + NITROGEN * (1 + hydrogen / 4 - oxygen / 2));
  const { co, co2, o2, hc } = gas;
  const off = (name: "co" | "co2" | "o2", value: number) => Math.max(MAY_BE_WRONG[name][0], MAY_BE_WRONG[name][1] * value);
  const [ofCo2, ofO2] = [2 * off("co2", co2), 2 * off("o2", o2)];
  if (co2 > most + ofCo2)
    return "more carbon dioxide than this fuel can make: look at the fuel that is set, and zero the analyser";
  if (o2 > AIR_OXYGEN * (1 - (co2 - ofCo2) / most) + ofO2)
    return "more oxygen than there is room for beside so much carbon dioxide: one of the two cells is wrong";
  const carbon = co2 + co + (6 * hc) / PPM;
  if (carbon + ofCo2 + off("co", co) < most * (1 - (o2 + ofO2) / AIR_OXYGEN))
    return "carbon is missing: what burned must stand in carbon dioxide, carbon monoxide or hydrocarbons. Look at probe, filter and water trap, and zero the analyser";
  return undefined;
}
