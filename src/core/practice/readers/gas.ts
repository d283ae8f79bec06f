/** Petrol as CH1.7261O0.0176, and the water-gas constant at which CO is frozen (Brettschneider 1979). */
const H = 1.7261;
const O = 0.0176;
const WATER_GAS = 3.5;
/** Oxygen that a carbon asks for, and nitrogen that comes with an oxygen. */
const NEEDS = 1 + H / 4 - O / 2;
const NITROGEN = 3.773;

/** Dry exhaust in percent, hydrocarbons in ppm. */
export interface DryGas {
  readonly co: number;
  readonly co2: number;
  readonly o2: number;
  readonly hc: number;
}

/**
 * Exhaust composition of burnt petrol, dry, thinned with air: complete burning where it is lean, water-gas equilibrium where it is rich.
 * @param lambda of what burns, 0.8 to 1.5; @param air mol of air let in behind for each mol of exhaust; @param unburnt share of the charge that passes.
 */
export function dryExhaust(lambda: number, air = 0, unburnt = 0): DryGas {
  let co = 0;
  let hydrogen = 0;
  if (lambda < 1) {
    // Oxygen balance with CO = x: water is what is left of it.
    let low = 0;
    let high = 1;
    for (let i = 0; i < 60; i++) {
      const x = (low + high) / 2;
      const water = O + 2 * lambda * NEEDS - 2 + x;
      const h2 = H / 2 - water;
      if (x * water < WATER_GAS * (1 - x) * h2) low = x;
      else high = x;
      co = x;
      hydrogen = Math.max(0, h2);
    }
  }
  const burnt = 1 - unburnt;
  const oxygen = Math.max(0, lambda - 1) * NEEDS + unburnt * NEEDS;
  const parts = {
    co: co * burnt,
    co2: (1 - co) * burnt,
    o2: oxygen,
    rest: lambda * NEEDS * NITROGEN + hydrogen,
    hc: unburnt / 6,
  };
  const dry = parts.co + parts.co2 + parts.o2 + parts.rest + parts.hc;
  const total = 1 + air;
  return {
    co: (100 * parts.co) / dry / total,
    co2: (100 * parts.co2) / dry / total,
    o2: (100 * (parts.o2 / dry + 0.2095 * air)) / total,
    hc: (1e6 * parts.hc) / dry / total,
  };
}
