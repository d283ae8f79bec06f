"use client";

import { createContext, type ReactNode, useContext, useEffect, useMemo, useState } from "react";
import { type English, inEnglish } from "@/core/terms";
import { convert, dimensionOf, formatNumber, formatQuantity, type Quantity, UNITS, type UnitId } from "@/core/units";
import { knownShop, SHOP_SEEN } from "./known-shop";
import { load, save } from "./storage";

const KEY = "pelota.preferences";

export interface Preferences {
  readonly pressure: UnitId;
  readonly flow: UnitId;
  readonly length: UnitId;
  readonly temperature: UnitId;
  readonly decimal: "." | ",";
  /** Keys given to actions in place of their usual ones */
  readonly keys: Readonly<Record<string, string>>;
  /** Whether clocks are heard */
  readonly sound: boolean;
  /** Whether suspects are weighed with what the shop has found before */
  readonly experience: boolean;
}

const DEFAULTS: Preferences = {
  pressure: "psi",
  flow: "L/min",
  length: "mm",
  temperature: "°C",
  decimal: ".",
  keys: {},
  sound: true,
  experience: true,
};

interface Shown {
  readonly preferences: Preferences;
  readonly change: (next: Partial<Preferences>) => void;
  /** A bare number in the reader's format */
  readonly number: (value: number, decimals: number) => string;
  /** A quantity in its own unit, in the reader's number format */
  readonly format: (q: Quantity, decimals?: number) => string;
  /** A reading in the unit it was taken in, with the preferred unit beside it where that differs */
  readonly reading: (q: Quantity, decimals?: number) => string;
  /** A sentence of the core: in the shop's English, its numbers with the reader's decimal sign */
  readonly sentence: (text: string) => string;
  /** Words of ours in the English that the shop speaks */
  readonly terms: (text: string) => string;
}

const Context = createContext<Shown | undefined>(undefined);

export function usePreferences(): Shown {
  const shown = useContext(Context);
  if (!shown) throw new Error("usePreferences needs a PreferencesProvider above it");
  return shown;
}

const asTheyStand = (text: string) => text;
/** Words of ours in the shop's English; as they stand where nothing is known of a shop. */
export const useTerms = (): ((text: string) => string) => useContext(Context)?.terms ?? asTheyStand;

const preferredUnit = (q: Quantity, p: Preferences): UnitId => {
  switch (dimensionOf(q)) {
    case "pressure":
      return p.pressure;
    case "volume-flow":
      return p.flow;
    case "length":
      return p.length;
    case "temperature":
      return p.temperature;
    default:
      return q.unit;
  }
};

/** Units and number format by preference of this device. */
export function PreferencesProvider({ children }: { children: ReactNode }) {
  const [preferences, setPreferences] = useState(DEFAULTS);
  const [english, setEnglish] = useState<English>("british");
  useEffect(() => setPreferences({ ...DEFAULTS, ...load<Partial<Preferences>>(KEY) }), []);
  useEffect(() => {
    const seen = () => setEnglish(knownShop()?.house?.english ?? "british");
    seen();
    window.addEventListener(SHOP_SEEN, seen);
    return () => window.removeEventListener(SHOP_SEEN, seen);
  }, []);
  const shown = useMemo((): Shown => {
    const format = { decimal: preferences.decimal };
    const terms = (text: string) => inEnglish(text, english);
    const own = (q: Quantity) => convert(q, preferredUnit(q, preferences));
    return {
      preferences,
      change: (next) => {
        const all = { ...preferences, ...next };
        save(KEY, all);
        setPreferences(all);
      },
      number: (value, decimals) => formatNumber(value, decimals, format),
      format: (q, decimals) => formatQuantity(q, decimals, format),
      terms,
      sentence: (text) => {
        const said = terms(text);
        return preferences.decimal === "," ? said.replace(/(\d)\.(?=\d)/g, "$1,") : said;
      },
      reading: (q, decimals) => {
        const taken = formatQuantity(q, decimals, format);
        const beside = own(q);
        // Beside a small reading in small units the preferred one would be a mere 0.00.
        const shows = Math.abs(beside.value) >= 10 ** -UNITS[beside.unit].decimals;
        return beside.unit === q.unit || !shows ? taken : `${taken} · ${formatQuantity(beside, undefined, format)}`;
      },
    };
  }, [preferences, english]);
  return <Context.Provider value={shown}>{children}</Context.Provider>;
}
