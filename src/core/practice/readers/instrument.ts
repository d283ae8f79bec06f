import type { InstrumentUse } from "../../checks/fields";
import { withReadings } from "../../checks/readings";
import type { SmokeRun } from "../../checks/smoke";
import { endsAt, gaugeFollows } from "../../devices/gauge";
import { ballShows, displayShows, type InstrumentFault, zeroOff } from "../../devices/instrument-fault";
import { fromSi, isQuantity, toSi, UNITS } from "../../units";

/**
 * What a gauge makes of a record: every reading of its kind follows what it is on with the gauge's lag, ends where its scale ends,
 * is shown to its own division, and stands off by what it shows with nothing on it. What it does not measure stays.
 * @param fault what is wrong with the instrument; one that nearly gives up is read with nothing on it first.
 */
export function shownOn(record: object, instrument: InstrumentUse, fault?: InstrumentFault): object {
  const { unit: own } = instrument.division;
  const { scale } = UNITS[own];
  const division = Math.abs(toSi(instrument.division));
  const off = zeroOff(fault) * division;
  const zero = toSi(instrument.zero) + off;
  const used = off === 0 ? instrument : { ...instrument, zero: { ...instrument.zero, ...fromSi(zero, instrument.zero.unit) } };
  if (!(division > 0)) return { ...record, instrument };
  let last = { at: 0, si: 0 };
  const shown = withReadings(record, own, (si, seconds) => {
    const follows = seconds ? gaugeFollows(last.si, si, seconds - last.at) : si;
    last = { at: seconds ?? 0, si: follows };
    const reached = endsAt(follows, instrument.end && toSi(instrument.end));
    const shows = displayShows(reached / scale, own, seconds ?? READ_AFTER, fault) * scale;
    const read = endsAt(
      Math.round((shows + zero) / division) * division,
      fault ? undefined : instrument.end && toSi(instrument.end),
    );
    return seconds === undefined ? read : Math.max(0, read);
  });
  return { ...shown, instrument: used };
}

/** A reading that is no series is taken so long after the instrument was put on, s. */
const READ_AFTER = 10;

/** Voltages as a meter shows them whose battery is nearly flat. */
export function metered(record: object, fault: InstrumentFault | undefined): object {
  if (!fault) return record;
  const walk = (value: unknown): unknown => {
    if (isQuantity(value) && value.unit === "V")
      return { ...value, value: Math.round(100 * displayShows(value.value, "V", 60, fault)) / 100 };
    if (Array.isArray(value)) return value.map(walk);
    if (typeof value === "object" && value !== null)
      return Object.fromEntries(Object.entries(value).map(([key, one]) => [key, key === "instrument" ? one : walk(one)]));
    return value;
  };
  return walk(record) as object;
}

/** A run as a smoke machine makes it that is out of order: no smoke anywhere, or a ball that does not come down. */
export function machineShows(run: SmokeRun, fault: InstrumentFault | undefined): SmokeRun {
  const smokeless = fault === "heater-out";
  return {
    ...run,
    samples: run.samples.map(([t, flow, pressure]) => [t, ballShows(flow, run.machine.maxFlow.value, fault), pressure]),
    ...(run.proof
      ? {
          proof: {
            ...run.proof,
            ballAtBottom: run.proof.ballAtBottom && fault !== "ball-stuck",
            smokeSeen: run.proof.smokeSeen && !smokeless,
          },
        }
      : {}),
    ...(smokeless ? { arrivals: [], seen: [], noSmokeOutside: run.noSmokeOutside || run.seen.length > 0 } : {}),
  };
}
