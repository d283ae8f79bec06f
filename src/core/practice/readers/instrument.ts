import type { InstrumentUse } from "../../checks/fields";
import { withReadings } from "../../checks/readings";
import type { SmokeRun } from "../../checks/smoke";
import { endsAt, gaugeFollows } from "../../devices/gauge";
import { ballShows, displayShows, type InstrumentFault, zeroOff } from "../../devices/instrument-fault";
import type { Members } from "../../form";
import { fromSi, toSi, UNITS } from "../../units";

/**
 * Record as read on a gauge: every reading of its kind follows what it is on with the gauge's lag, ends where its scale ends,
 * is shown to its own division, and stands off by what it shows with nothing on it. What it does not measure stays.
 * @param fault what is wrong with the instrument; one that nearly gives up is read with nothing on it first.
 */
export function shownOn(fields: Members, record: object, instrument: InstrumentUse, fault?: InstrumentFault): object {
  const { unit: own } = instrument.division;
  const { scale } = UNITS[own];
  const division = Math.abs(toSi(instrument.division));
  const off = zeroOff(fault) * division;
  const zero = toSi(instrument.zero) + off;
  const used = off === 0 ? instrument : { ...instrument, zero: { ...instrument.zero, ...fromSi(zero, instrument.zero.unit) } };
  if (!(division > 0)) return { ...record, instrument };
  const end = instrument.end && toSi(instrument.end);
  let last = { at: 0, si: 0 };
  const shown = withReadings(fields, record, own, (si, seconds) => {
    const follows = seconds ? gaugeFollows(last.si, si, seconds - last.at) : si;
    last = { at: seconds ?? 0, si: follows };
    const shows = displayShows(endsAt(follows, end) / scale, own, seconds ?? READ_AFTER, fault) * scale;
    // A display that is set to another unit, or sinks, shows what its own scale never would.
    const read = endsAt(Math.round((shows + zero) / division) * division, fault ? undefined : end);
    return seconds === undefined ? read : Math.max(0, read);
  });
  return { ...shown, instrument: used };
}

/** A reading that is no series is taken so long after the instrument was put on, s. */
const READ_AFTER = 10;

/** Voltages as a meter shows them whose battery is nearly flat. */
export const metered = (fields: Members, record: object, fault: InstrumentFault | undefined): object =>
  fault ? withReadings(fields, record, "V", (volts) => Math.round(100 * displayShows(volts, "V", 60, fault)) / 100) : record;

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
