import * as yup from "yup";
import { BANDS, type Band, type BandId, plausibility } from "./plausible";
import { formatQuantity, type Quantity } from "./quantity";
import { type Dimension, findUnit, type PressureKind, UNITS, unitsOf } from "./units";

interface QuantityRule {
  readonly dimension: Dimension;
  /** The one kind this pressure field takes; a reading without a kind is taken as this. */
  readonly kind?: PressureKind;
  /** Refuse values out of this field's plausible band. Left out where only the technician may decide. */
  readonly band?: BandId;
}

/**
 * The Yup schema of a quantity at any door: known unit of the right dimension, finite value, kind not contradicted.
 * @param rule a field's band, or a bare dimension with the kind it takes.
 */
export function quantitySchema(rule: QuantityRule | BandId) {
  const band: Band | undefined = typeof rule === "string" ? BANDS[rule] : rule.band ? BANDS[rule.band] : undefined;
  const bandId = typeof rule === "string" ? rule : rule.band;
  const dimension = typeof rule === "string" ? BANDS[rule].dimension : rule.dimension;
  const kind = typeof rule === "string" ? band?.kind : rule.kind;
  return yup
    .object({
      value: yup
        .number()
        .required()
        .test("finite", "${path} must be a finite number", (v) => Number.isFinite(v)),
      unit: yup
        .mixed<Quantity["unit"]>()
        .required()
        .test("unit", (unit, context) => {
          const found = typeof unit === "string" ? findUnit(unit) : undefined;
          if (found === unit && found && UNITS[found].dimension === dimension) return true;
          const known = unitsOf(dimension).join(", ");
          return context.createError({
            message: `${context.path}: unit ${typeof unit === "string" ? `"${unit}"` : JSON.stringify(unit)} is not known here; use one of ${known}`,
          });
        }),
      kind: yup
        .mixed<PressureKind>()
        .optional()
        .test("kind", (given, context) => {
          if (given === undefined) return true;
          if (dimension !== "pressure") {
            return context.createError({ message: `${context.path}: only a pressure has a kind` });
          }
          if (!["gauge", "vacuum", "absolute"].includes(given)) {
            return context.createError({ message: `${context.path} must be gauge, vacuum or absolute` });
          }
          return kind === undefined || given === kind
            ? true
            : context.createError({ message: `${context.path}: this pressure is ${kind}, not ${given}; convert it first` });
        }),
    })
    .noUnknown()
    .strict()
    .test("plausible", (q, context) => {
      if (!q || typeof q.value !== "number" || !bandId) return true;
      // A contradicted kind has its own complaint, which names the mistake.
      if (q.kind !== undefined && kind !== undefined && q.kind !== kind) return true;
      const full = { ...q, ...(kind ? { kind } : {}) } as Quantity;
      if (typeof full.unit !== "string" || findUnit(full.unit) !== full.unit || UNITS[full.unit].dimension !== dimension)
        return true;
      if (full.kind === "absolute" && full.value < 0) {
        return context.createError({
          message: `${context.path}: ${formatQuantity(full)} is below nothing; an absolute pressure cannot be negative`,
        });
      }
      const query = plausibility(full, bandId);
      return query ? context.createError({ message: `${context.path}: ${query.message}` }) : true;
    });
}
