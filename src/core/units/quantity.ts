import { type Dimension, type PressureKind, UNITS, type UnitId } from "./units";

/** A reading as it was taken: number, unit and, for a pressure, what it is counted from. */
export interface Quantity {
  readonly value: number;
  readonly unit: UnitId;
  readonly kind?: PressureKind;
}

declare const kind: unique symbol;
/** Pressure above ambient, Pa. May be negative. */
export type GaugePressure = number & { readonly [kind]: "gauge" };
/** Pressure below ambient, Pa, positive down. */
export type VacuumPressure = number & { readonly [kind]: "vacuum" };
/** Pressure from nothing, Pa. Never negative. */
export type AbsolutePressure = number & { readonly [kind]: "absolute" };

const gauge = (pascal: number) => pascal as GaugePressure;
const vacuum = (pascal: number) => pascal as VacuumPressure;
export const absolute = (pascal: number) => pascal as AbsolutePressure;

/** Absolute pressure (Pa) of a gauge pressure (Pa) at an ambient (Pa absolute). */
const absoluteFromGauge = (p: GaugePressure, ambient: AbsolutePressure) => absolute(ambient + p);
/** Whether this is a number with a unit that is known; a test across fields runs before each has been looked at. */
export const isQuantity = (q: unknown): q is Quantity => {
  const { value, unit } = (q ?? {}) as Partial<Quantity>;
  return typeof value === "number" && typeof unit === "string" && Object.hasOwn(UNITS, unit);
};

/** Absolute pressure (Pa) of a vacuum (Pa, positive down) at an ambient (Pa absolute). */
const absoluteFromVacuum = (p: VacuumPressure, ambient: AbsolutePressure) => absolute(ambient - p);

export const dimensionOf = (q: Quantity): Dimension => UNITS[q.unit].dimension;

/** The bare SI number of a quantity; a pressure keeps its own kind. Exact to double precision. */
export function toSi(q: Quantity): number {
  const u = UNITS[q.unit];
  return q.value * u.scale + u.offset;
}

/** A quantity in `unit` from a bare SI number. */
export function fromSi(si: number, unit: UnitId, pressureKind?: PressureKind): Quantity {
  const u = UNITS[unit];
  const value = (si - u.offset) / u.scale;
  return pressureKind ? { value, unit, kind: pressureKind } : { value, unit };
}

/** A mean of readings as a display would show it, to so many decimals of `unit`. */
export function displayed(si: number, unit: UnitId, decimals: number, pressureKind?: PressureKind): Quantity {
  const q = fromSi(si, unit, pressureKind);
  // Minus nothing is nothing.
  return { ...q, value: Number(q.value.toFixed(decimals)) + 0 };
}

/** The same quantity in another unit of its dimension. Throws RangeError across dimensions. */
export function convert(q: Quantity, unit: UnitId): Quantity {
  if (UNITS[unit].dimension !== dimensionOf(q)) {
    throw new RangeError(`${q.unit} is a ${dimensionOf(q)} and cannot be shown in ${unit}`);
  }
  return fromSi(toSi(q), unit, q.kind);
}

/**
 * A pressure quantity as absolute pressure.
 * @param ambient Pa absolute; needed for gauge and vacuum readings.
 * @returns Pa absolute. Throws RangeError when it would lie below nothing.
 */
export function toAbsolute(q: Quantity, ambient: AbsolutePressure): AbsolutePressure {
  const si = toSi(q);
  const p =
    q.kind === "absolute"
      ? absolute(si)
      : q.kind === "vacuum"
        ? absoluteFromVacuum(vacuum(si), ambient)
        : absoluteFromGauge(gauge(si), ambient);
  if (p < 0) throw new RangeError(`${formatQuantity(q)} is below absolute zero pressure`);
  return p;
}

export interface NumberFormat {
  /** "." or ",": what stands before the decimals. */
  readonly decimal: "." | ",";
}

const POINT: NumberFormat = { decimal: "." };

/** A number with a fixed count of decimals in the reader's format; a non-finite one is a dash. */
export function formatNumber(value: number, decimals: number, format: NumberFormat = POINT): string {
  if (!Number.isFinite(value)) return "–";
  const text = value.toFixed(decimals).replace(/^-(0(?:\.0*)?)$/, "$1");
  return format.decimal === "," ? text.replace(".", ",") : text;
}

const KIND_WORD: Record<PressureKind, string> = { gauge: "gauge", vacuum: "vacuum", absolute: "absolute" };

/** "0.42 psi gauge": number, unit and, for a pressure, kind. A number is never shown without them. */
export function formatQuantity(q: Quantity, decimals?: number, format: NumberFormat = POINT): string {
  const number = formatNumber(q.value, decimals ?? UNITS[q.unit].decimals, format);
  return q.kind ? `${number} ${q.unit} ${KIND_WORD[q.kind]}` : `${number} ${q.unit}`;
}
