/** Cautions shown before a step, acknowledged once per job. */
export type CautionId =
  | "running-engine"
  | "smoke-vapour"
  | "enrichment-gas"
  | "compressed-air"
  | "hot-exhaust"
  | "twelve-volt"
  | "wire-piercing"
  | "spray"
  | "fuel-vapour"
  | "evap-pressure"
  | "filter-cleaner"
  | "regeneration"
  | "emission-devices";

/** The usual cautions; local rules and licensed practice come first. */
export const CAUTION_TEXTS: Record<CautionId, string> = {
  "running-engine": "Running engine: exhaust extraction on, hair, sleeves and leads clear of belts and fans.",
  "smoke-vapour": "Smoke and vapour: ventilate, do not breathe it. Never heated smoke into a full or hot tank.",
  "enrichment-gas": "Enrichment gas burns: no hot parts or sparks near, extinguisher at hand, ventilate.",
  "compressed-air":
    "Compressed air: eye protection on, hose tied against whipping, nobody in line with a plug or bladder; open slowly, never above the weakest part's rating; the crank is never turned under pressure.",
  "hot-exhaust": "Hot exhaust and coolant: let it cool or keep hands away.",
  "twelve-volt": "12 V goes to unplugged parts only: never feed voltage back into the ECU. Fuse the lead.",
  "wire-piercing": "A pierced wire stays on the off-the-car list until it is sealed. Airbag lines are left alone.",
  spray: "Water or soap: none into connectors or the MAF, none on hot exhaust; mind fans and belts.",
  "fuel-vapour": "Fuel vapour: no flame, spark or open heater near, ventilate, extinguisher at hand.",
  "evap-pressure":
    "EVAP: never above its low limit, and never heated smoke into a full or hot tank. Regulate before the hose goes on.",
  "filter-cleaner":
    "Filter cleaner: gloves and eyes, a cool exhaust, catch what runs out and dispose of it as the label says; never into the turbine or the oil.",
  regeneration:
    "Regeneration: the exhaust gets hotter than 600 °C. Outside, nothing that burns beneath or behind, extraction rated for it, somebody beside it.",
  "emission-devices": "Emission devices stay on and working: plugs and blanks come off again.",
};
