import type { CodeText } from "../family";

/** Hoses and ducts that let in air behind the meter while they are off and the engine runs. */
const SUCKS = [
  "booster-hose",
  "pcv-hose",
  "vacuum-branch",
  "purge-hose",
  "gauge-port",
  "breather-duct",
  "breather-port",
  "duct-clamp",
  "oil-cap",
  "dipstick",
];
const METER = ["air-meter", "duct-clamp"];

const MISFIRES = Array.from({ length: 8 }, (_, i) => ({ code: `P030${i + 1}`, text: `Misfire on cylinder ${i + 1}` }));

export const CODES = [
  { code: "P0171", text: "Mixture too lean, bank 1", observation: "code:lean", ours: SUCKS },
  { code: "P0174", text: "Mixture too lean, bank 2", observation: "code:lean", ours: SUCKS },
  { code: "P0172", text: "Mixture too rich, bank 1" },
  { code: "P0175", text: "Mixture too rich, bank 2" },
  { code: "P2177", text: "Lean off idle, bank 1", observation: "code:lean", ours: SUCKS },
  { code: "P2178", text: "Rich off idle, bank 1" },
  { code: "P2187", text: "Lean at idle, bank 1", observation: "code:lean", ours: SUCKS },
  { code: "P2189", text: "Lean at idle, bank 2", observation: "code:lean", ours: SUCKS },
  { code: "P2279", text: "Air leak in the intake", observation: "code:lean", ours: SUCKS },
  { code: "P0101", text: "MAF out of range for the engine", observation: "code:air-meter", ours: METER },
  { code: "P0102", text: "MAF signal low", observation: "code:air-meter", ours: METER },
  { code: "P0068", text: "Air flow and manifold pressure do not fit each other", observation: "code:throttle-air" },
  { code: "P0069", text: "Manifold and ambient pressure sensors do not agree, engine standing" },
  { code: "P0087", text: "Fuel rail pressure too low", observation: "code:fuel-pressure" },
  { code: "P0128", text: "Coolant does not reach its thermostat's temperature" },
  { code: "P0106", text: "Manifold pressure does not fit the engine", observation: "code:throttle-air" },
  { code: "P0121", text: "Throttle position does not fit the engine" },
  { code: "P0300", text: "Misfire on several cylinders" },
  ...MISFIRES,
  { code: "P2004", text: "Runner flaps stuck open, bank 1", observation: "code:flaps" },
  { code: "P2006", text: "Runner flaps stuck closed, bank 1", observation: "code:flaps" },
  { code: "P2008", text: "Runner-flap control circuit open, bank 1", observation: "code:flap-circuit", ours: ["flap-solenoid"] },
  { code: "P2015", text: "Runner-flap position does not fit its command", observation: "code:flaps" },
  { code: "P0505", text: "Idle control out of range", observation: "code:idle-high", ours: SUCKS },
  { code: "P0507", text: "Idle above its target", observation: "code:idle-high", ours: SUCKS },
] as const satisfies readonly CodeText[];
