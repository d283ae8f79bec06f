import { type CheckKind, readingOf } from "../check";
import { FILTER_PRESSURE, filterAsks } from "./asks";
import { filterCandidates } from "./candidates";
import { filterForm } from "./form";
import { judgeFilterCheck } from "./judge";
import { planFilter } from "./plan";
import { type FilterRecord, filterSchema } from "./record";
import { rows, type Seen } from "./rows";

export * from "./extract";
export * from "./judge";
export * from "./record";

export const filter: CheckKind<FilterRecord, unknown, Seen> = {
  id: "filter",
  name: "Filter pressure",
  words: { pass: "Works", fail: "Faulty" },
  aim: "Pressure before over behind the particulate filter: loaded, sound, or a sensor that lies",
  engine: "warm-running",
  role: "measures",
  shelf: "running",
  families: ["filter"],
  needs: ["fitted"],
  rows,
  candidates: filterCandidates,
  asks: filterAsks,
  resets: {
    name: "The ECU is told that its particulate filter is as new",
    atom: FILTER_PRESSURE,
    places: ["filter-core", "filter-loaded", "filter-broken"],
  },
  schema: filterSchema,
  form: filterForm,
  plan: planFilter,
  judge: judgeFilterCheck,
  readings: (r) => [
    ...readingOf("filter pressure, key on", r.keyOn && { ...r.keyOn, kind: "gauge" }),
    ...(["idle", "held"] as const).flatMap((state, point) => {
      const read = r[state];
      if (!read) return [];
      return [
        { reading: `engine speed, ${state}`, value: read.rpm, unit: "1/min", point },
        ...readingOf(`filter pressure, ${state}`, { ...read.pressure, kind: "gauge" }, { point }),
        ...readingOf(`air meter flow, ${state}`, read.maf, { point }),
        ...readingOf(`exhaust temperature, ${state}`, read.exhaustTemperature, { point }),
      ];
    }),
  ],
};
