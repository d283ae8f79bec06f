/** Our own short wording for generic codes of the families; any other code is accepted as typed. */
export interface CodeText {
  readonly code: string;
  readonly text: string;
  /** Observation the suspects engine weighs */
  readonly observation?: string;
}

export const CODE_TEXTS: readonly CodeText[] = [
  { code: "P0171", text: "Mixture too lean, bank 1", observation: "code:lean" },
  { code: "P0174", text: "Mixture too lean, bank 2", observation: "code:lean" },
  { code: "P0172", text: "Mixture too rich, bank 1" },
  { code: "P0175", text: "Mixture too rich, bank 2" },
  { code: "P2177", text: "Lean off idle, bank 1", observation: "code:lean" },
  { code: "P2178", text: "Rich off idle, bank 1" },
  { code: "P2187", text: "Lean at idle, bank 1", observation: "code:lean" },
  { code: "P2189", text: "Lean at idle, bank 2", observation: "code:lean" },
  { code: "P2279", text: "Air leak in the intake", observation: "code:lean" },
  { code: "P0101", text: "Air meter out of range for the engine", observation: "code:air-meter" },
  { code: "P0102", text: "Air meter signal low", observation: "code:air-meter" },
  { code: "P0068", text: "Air flow and manifold pressure do not fit each other", observation: "code:throttle-air" },
  { code: "P0106", text: "Manifold pressure does not fit the engine", observation: "code:throttle-air" },
  { code: "P0121", text: "Throttle position does not fit the engine" },
  { code: "P0234", text: "Boost above what was asked" },
  { code: "P0299", text: "Boost below what was asked", observation: "code:low-boost" },
  { code: "P0300", text: "Misfire on several cylinders" },
  { code: "P0440", text: "EVAP system at fault", observation: "code:evap" },
  { code: "P0441", text: "Purge flow not as asked", observation: "code:purge" },
  { code: "P0442", text: "EVAP leak, small", observation: "code:evap-small" },
  { code: "P0443", text: "Purge valve circuit", observation: "code:purge-circuit" },
  { code: "P0444", text: "Purge valve circuit open", observation: "code:purge-circuit" },
  { code: "P0445", text: "Purge valve circuit shorted", observation: "code:purge-circuit" },
  { code: "P0446", text: "EVAP vent does not do as asked", observation: "code:vent" },
  { code: "P0447", text: "EVAP vent circuit open", observation: "code:vent-circuit" },
  { code: "P0448", text: "EVAP vent circuit shorted", observation: "code:vent-circuit" },
  { code: "P0449", text: "EVAP vent valve circuit", observation: "code:vent-circuit" },
  { code: "P0450", text: "Tank-pressure sensor at fault", observation: "code:tank-sensor" },
  { code: "P0451", text: "Tank-pressure sensor out of range", observation: "code:tank-sensor" },
  { code: "P0452", text: "Tank-pressure sensor signal low", observation: "code:tank-sensor" },
  { code: "P0453", text: "Tank-pressure sensor signal high", observation: "code:tank-sensor" },
  { code: "P0455", text: "EVAP leak, gross", observation: "code:evap-gross" },
  { code: "P0456", text: "EVAP leak, very small", observation: "code:evap-very-small" },
  { code: "P0457", text: "EVAP leak, cap loose or off", observation: "code:evap-gross" },
  { code: "P0496", text: "Purge flow when none was asked", observation: "code:purge-high" },
  { code: "P0497", text: "Purge flow too low", observation: "code:purge-low" },
  { code: "P0498", text: "EVAP vent control low", observation: "code:vent-circuit" },
  { code: "P0499", text: "EVAP vent control high", observation: "code:vent-circuit" },
  { code: "P2004", text: "Runner flaps stuck open, bank 1", observation: "code:flaps" },
  { code: "P2006", text: "Runner flaps stuck closed, bank 1", observation: "code:flaps" },
  { code: "P2008", text: "Runner-flap control circuit open, bank 1", observation: "code:flap-circuit" },
  { code: "P2015", text: "Runner-flap position does not fit its command", observation: "code:flaps" },
  { code: "P0505", text: "Idle control out of range", observation: "code:idle-high" },
  { code: "P0507", text: "Idle above its target", observation: "code:idle-high" },
];

export const codeText = (code: string): CodeText | undefined => CODE_TEXTS.find((c) => c.code === code.toUpperCase());

/** Codes that mean a lean bank, by bank. */
const LEAN_BANKS: Record<string, 1 | 2> = { P0171: 1, P2187: 1, P2177: 1, P0174: 2, P2189: 2 };

/** Codes of the mixture, lean or rich, by the bank they name. */
const MIXTURE_BANKS: Record<string, 1 | 2> = { ...LEAN_BANKS, P0172: 1, P2178: 1, P2188: 1, P0175: 2, P2190: 2 };

/** Banks whose correction a code speaks of; a lean code that names none speaks of all. */
export function mixtureBanks(code: string, banks: 1 | 2): number[] {
  const own = MIXTURE_BANKS[code.toUpperCase()];
  if (own !== undefined) return own <= banks ? [own] : [1];
  return codeText(code)?.observation === "code:lean" ? Array.from({ length: banks }, (_, i) => i + 1) : [];
}

/** What a set of codes says: each observation once; lean on one of two banks is its own observation. */
export function codeObservations(codes: readonly string[], banks: 1 | 2): string[] {
  const found = new Set(codes.flatMap((c) => codeText(c)?.observation ?? []));
  const lean = new Set(codes.flatMap((c) => LEAN_BANKS[c.toUpperCase()] ?? []));
  if (banks === 2 && lean.size === 1) {
    found.delete("code:lean");
    found.add("code:one-bank-lean");
  }
  return [...found];
}

export const SYMPTOMS = [
  ["hiss-idle", "Hiss or whistle at idle"],
  ["hiss-load", "Hiss under load"],
  ["rough-idle", "Rough or hunting idle"],
  ["low-power", "Weak under load, limp mode"],
  ["cold-worse", "Worse when cold"],
  ["brake-hard", "Hard brake pedal"],
  ["oil-smell", "Oil smell or mist"],
  ["ticking-cold", "Ticking when cold"],
  ["whistle-cap", "Whistle that changes with the oil cap"],
  ["dull-low", "Dull at low speed"],
  ["comes-and-goes", "Comes and goes"],
  ["stalls", "Stalls coming to idle"],
  ["nozzle-clicks", "Pump nozzle keeps clicking off"],
  ["fuel-smell", "Smell of fuel"],
  ["hard-start-filled", "Hard to start after filling up"],
  ["cap-whoosh", "Rush of air on opening the cap"],
] as const;
export type SymptomId = (typeof SYMPTOMS)[number][0];
