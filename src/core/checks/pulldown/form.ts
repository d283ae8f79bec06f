import type { UnitId } from "../../units";
import { AIR_ELSEWHERE, airOf, checkForm, fuelLevelField, given, unitOptions } from "../known";
import { samplesAgain, takenSamples } from "../samples";
import { ventSecondsField, ventShutField } from "../vent-form";
import { type PulldownRecord, pulldownSchema } from "./record";

const mark = (name: string) => ({ type: "number", label: `${name}, s`, bare: "s" }) as const;
const UNITS: readonly UnitId[] = ["Pa", "inH2O", "mbar", "kPa"];

/** Tank pressure through vent shut, purge open, purge shut, vent open. */
export const pulldownForm = checkForm<PulldownRecord>()({
  schema: pulldownSchema,
  fields: {
    "vent.by": ventShutField("command"),
    fuelLevel: fuelLevelField,
    "vent.seconds": ventSecondsField,
    unit: { type: "choice", label: "Unit of tank pressure", options: unitOptions(UNITS), holds: () => "Pa" },
    trace: { type: "taken", label: "Tank pressure", at: "points", aside: true },
    ventShutAt: mark("Vent shut"),
    purgeOpenAt: mark("Purge open"),
    purgeShutAt: mark("Purge shut"),
    ventOpenAt: mark("Vent open again"),
    idled: { type: "tick", label: "The engine idled the whole time, foot off" },
  },
  also: (read, all) => {
    const trace = takenSamples(all.holds("trace"));
    const vent = (read.vent ?? {}) as { by?: string };
    return {
      source: trace.source,
      points: trace.samples,
      vent: vent.by === "command" ? { ...vent, ...given("at", read.ventShutAt) } : vent,
      ...given("required", all.known.required),
      ...airOf(all, "temperature"),
    };
  },
  keeps: ["ambient", "temperature", "required"],
  elsewhere: AIR_ELSEWHERE,
  laidOut: (record) => ({ ...record, points: samplesAgain(record.points, record.source) }),
});
