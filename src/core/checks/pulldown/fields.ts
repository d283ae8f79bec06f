import { answer, fields, type RecordOf, taken } from "../../form";
import type { UnitId } from "../../units";
import { checkForm } from "../check-form";
import { askVent, fuelLevel, required, vent } from "../evap-fields";
import { airTemperature, ambient, moment, pressureUnit, series, source } from "../fields";
import { samplesAgain, takenSamples } from "../samples";
import type { Sample } from "../table";

const FEWEST = 8;
const phase = (name: string, label = name) => moment(name, { label: `${label}, s` });

/** Tank pressure while the idling engine pulls the shut system down: vent shut, purge open, purge shut, vent open. Times in s. */
export const pulldownFields = fields({
  vent: vent(),
  fuelLevel: fuelLevel(),
  unit: pressureUnit(["Pa", "inH2O", "mbar", "kPa"] satisfies readonly UnitId[], {
    label: "Unit of tank pressure",
    defaultValue: "Pa",
  }),
  /** [s, tank pressure, gauge: below ambient is negative] */
  points: series<Sample>([{ name: "Tank pressure", low: -1e5, high: 1e5 }], 20_000, {
    atLeast: [FEWEST, `A trace needs at least ${FEWEST} readings over its phases`],
    column: "tank pressure",
    kind: "gauge",
  }),
  ventShutAt: phase("Vent shut"),
  purgeOpenAt: phase("Purge open"),
  purgeShutAt: phase("Purge shut"),
  ventOpenAt: phase("Vent open", "Vent open again"),
  /** The engine idled the whole time, foot off */
  idled: answer({
    label: "The engine meanwhile",
    yes: "Idled the whole time, foot off",
    no: "Did not",
    missing: "Say whether the engine idled the whole time, foot off",
  }),
  source: source(),
  required: required(),
  ambient: ambient(),
  temperature: airTemperature(),
}).rule("whole", "The phases follow each other: vent shut, purge open, purge shut, vent open", (record) => {
  const at = [record.ventShutAt, record.purgeOpenAt, record.purgeShutAt, record.ventOpenAt] as readonly number[];
  const [ventShut = 0, purgeOpen = 0, purgeShut = 0, ventOpen = 0] = at;
  return at.some((t) => t === undefined) || (ventShut <= purgeOpen && purgeOpen < purgeShut && purgeShut < ventOpen);
});
export type PulldownRecord = RecordOf<typeof pulldownFields>;

export const pulldownForm = checkForm(pulldownFields, {
  aside: { trace: taken("Tank pressure") },
  at: { trace: "points" },
  ask: askVent("command"),
  computed: {
    source: (_, { value }) => takenSamples(value("trace")).source,
    points: (_, { value }) => takenSamples(value("trace")).samples,
    // The tool shuts the vent as the first phase begins.
    vent: ({ vent, ventShutAt }) => (vent?.by === "command" && ventShutAt !== undefined ? { ...vent, at: ventShutAt } : vent),
  },
  laidOut: { trace: ({ points, source }) => samplesAgain(points, source) },
});
