import type { CodeRead, FreezeFrame } from "../journal/entries";
import type { ChannelId } from "../scan-log";
import { toSi } from "../units";

/** Data an engine's ECU has when it is asked. SI; trims, loads and shares in percent. */
export interface EcuNow {
  readonly values: Readonly<Partial<Record<ChannelId, number>>>;
  readonly codes: readonly CodeRead[];
  /** Stored once and not yet seen to pass: what a scan tool cannot clear */
  readonly permanent: readonly string[];
  /** Every monitor has run since the codes were cleared */
  readonly complete: boolean;
  readonly petrol: boolean;
  readonly vin: string;
  /** The leak monitor's last result as a hole, m, and what it is held against */
  readonly leak?: { readonly measured: number; readonly limit: number };
  readonly running: boolean;
}

type Bytes = readonly number[];
const word = (value: number): Bytes => {
  const whole = Math.max(0, Math.min(65535, Math.round(value)));
  return [whole >> 8, whole & 0xff];
};
const byte = (value: number): Bytes => [Math.max(0, Math.min(255, Math.round(value)))];
const celsius = (kelvin: number) => byte(kelvin - 273.15 + 40);
const trim = (percent: number) => byte(percent * 1.28 + 128);

/** PIDs of services 01 and 02 that this ECU has, each from its channel (SAE J1979-DA, appendix B). */
const PIDS: readonly (readonly [pid: number, channel: ChannelId, encode: (value: number) => Bytes])[] = [
  [0x03, "loop", (closed) => [closed ? 2 : 1, 0]],
  [0x04, "load", (percent) => byte((percent * 255) / 100)],
  [0x05, "coolant", celsius],
  [0x06, "short-trim-1", trim],
  [0x07, "long-trim-1", trim],
  [0x08, "short-trim-2", trim],
  [0x09, "long-trim-2", trim],
  [0x0b, "map", (pa) => byte(pa / 1000)],
  [0x0c, "rpm", (rpm) => word(rpm * 4)],
  [0x0d, "speed", (metres) => byte(metres * 3.6)],
  [0x0f, "intake-temperature", celsius],
  [0x10, "maf", (kg) => word(kg * 1e5)],
  [0x11, "throttle", (percent) => byte((percent * 255) / 100)],
  [0x33, "barometer", (pa) => byte(pa / 1000)],
];

/** Why a request is refused (ISO 14229-1, negative response codes). */
const REFUSED = 0x7f;
const NOT_SUPPORTED = 0x11;
const SUB_NOT_SUPPORTED = 0x12;
const WRONG_LENGTH = 0x13;
const CONDITIONS = 0x22;

/** PIDs that one request may ask for. */
const MOST_PIDS = 6;
/** Monitors of service 06: the leak of 0.020 in; its test and the scaling of a pressure over 0.25 Pa. */
const EVAP_MONITOR = 0x3c;
const LEAK_TEST = 0x80;
/** Thousandths of a volt or of a ratio: the hole as thousandths of a millimetre, unsigned. */
const THOUSANDTHS = 0x04;
/** Service 08, test 01: the tank is shut for a leak test. */
const SHUT_TANK = 0x01;

/** A set of ids as the bits that say which of the 32 after `from` are there. */
function mask(ids: readonly number[], from: number): Bytes {
  let bits = 0;
  for (const id of ids) if (id > from && id <= from + 32) bits |= 1 << (32 - (id - from));
  return [(bits >>> 24) & 0xff, (bits >>> 16) & 0xff, (bits >>> 8) & 0xff, bits & 0xff];
}

/** A code as its two bytes (SAE J2012). */
export function codeBytes(code: string): Bytes {
  const letter = "PCBU".indexOf(code[0] ?? "");
  const digits = Number.parseInt(code.slice(1), 16);
  return [(letter << 6) | ((digits >> 8) & 0x3f), digits & 0xff];
}

/** Answers SAE J1979 requests of services 01 to 0A byte for byte, as an ECU on CAN does. */
export class ObdEcu {
  constructor(private readonly now: () => EcuNow) {}

  /** Codes were cleared by service 04: whoever keeps the ECU's memory clears it. */
  onCleared: () => void = () => {};

  /** The answer to a request, both without their framing; none where nobody answers. */
  answer(request: Bytes): Bytes {
    const [service = 0, ...rest] = request;
    switch (service) {
      case 0x01:
        return this.current(rest);
      case 0x02:
        return this.frozen(rest);
      case 0x03:
        return this.codes(service, ["stored", "current"]);
      case 0x04: {
        if (this.now().running) return [REFUSED, service, CONDITIONS];
        this.onCleared();
        return [0x44];
      }
      // Over CAN oxygen sensors are monitored by service 06.
      case 0x05:
        return [REFUSED, service, NOT_SUPPORTED];
      case 0x06:
        return this.monitor(rest);
      case 0x07:
        return this.codes(service, ["pending"]);
      case 0x08:
        return this.control(rest);
      case 0x09:
        return this.information(rest);
      case 0x0a: {
        const { permanent } = this.now();
        return [0x4a, permanent.length, ...permanent.flatMap(codeBytes)];
      }
      default:
        return [REFUSED, service, NOT_SUPPORTED];
    }
  }

  private supported(): number[] {
    const { values } = this.now();
    return [0x01, ...PIDS.flatMap(([pid, channel]) => (values[channel] === undefined ? [] : [pid])), 0x20, 0x30, 0x31];
  }

  private pid(pid: number): Bytes | undefined {
    const { values, complete } = this.now();
    if (pid === 0x00 || pid === 0x20) return mask(this.supported(), pid);
    if (pid === 0x01) return this.status();
    if (pid === 0x30) return byte(complete ? 6 : 0);
    if (pid === 0x31) return word(complete ? 32 : 0);
    const row = PIDS.find(([id]) => id === pid);
    const value = row && values[row[1]];
    return row && value !== undefined ? row[2](value) : undefined;
  }

  /** PID 01: the light, how many codes, and which monitors are there and complete. */
  private status(): Bytes {
    const { codes, complete, petrol } = this.now();
    const stored = codes.filter((c) => c.status === "stored" || c.status === "current").length;
    const continuous = 0b0000_0111;
    // Catalyst, EVAP, secondary air, oxygen sensors and their heaters; a diesel has its own set.
    const perTrip = petrol ? 0b0110_1101 : 0b1000_0001;
    return [(stored > 0 ? 0x80 : 0) | stored, continuous | (petrol ? 0 : 0x08), perTrip, complete ? 0 : perTrip];
  }

  private current(pids: Bytes): Bytes {
    if (pids.length === 0 || pids.length > MOST_PIDS) return [REFUSED, 0x01, WRONG_LENGTH];
    const known = pids.flatMap((pid) => {
      const data = this.pid(pid);
      return data ? [pid, ...data] : [];
    });
    return known.length > 0 ? [0x41, ...known] : [REFUSED, 0x01, SUB_NOT_SUPPORTED];
  }

  private frozen(rest: Bytes): Bytes {
    if (rest.length % 2 !== 0 || rest.length === 0) return [REFUSED, 0x02, WRONG_LENGTH];
    const kept = this.now().codes.find((c) => c.frame && c.status !== "history");
    const known: number[] = [];
    for (let i = 0; i < rest.length; i += 2) {
      const [pid, frame] = [rest[i] as number, rest[i + 1] as number];
      const data = frame === 0 ? frozenPid(pid, kept) : undefined;
      if (data) known.push(pid, frame, ...data);
    }
    return known.length > 0 ? [0x42, ...known] : [REFUSED, 0x02, SUB_NOT_SUPPORTED];
  }

  private codes(service: number, which: readonly CodeRead["status"][]): Bytes {
    const found = this.now().codes.filter((c) => which.includes(c.status));
    return [service + 0x40, found.length, ...found.flatMap((c) => codeBytes(c.code))];
  }

  private monitor([id]: Bytes): Bytes {
    const { leak } = this.now();
    const ids = leak ? [EVAP_MONITOR] : [];
    if (id === undefined) return [REFUSED, 0x06, WRONG_LENGTH];
    if (id % 0x20 === 0) {
      const more = ids.some((one) => one > id + 32) ? [id + 0x20] : [];
      const bits = mask([...ids, ...more], id);
      return [0x46, id, ...bits];
    }
    if (id !== EVAP_MONITOR || !leak) return [REFUSED, 0x06, SUB_NOT_SUPPORTED];
    const thousandths = (metres: number) => word(metres * 1e6);
    return [0x46, id, LEAK_TEST, THOUSANDTHS, ...thousandths(leak.measured), ...word(0), ...thousandths(leak.limit)];
  }

  private control([test]: Bytes): Bytes {
    if (test === undefined) return [REFUSED, 0x08, WRONG_LENGTH];
    if (test === 0x00) return [0x48, 0x00, ...mask(this.now().petrol ? [SHUT_TANK] : [], 0)];
    if (test !== SHUT_TANK || !this.now().petrol) return [REFUSED, 0x08, SUB_NOT_SUPPORTED];
    return [0x48, SHUT_TANK, 0, 0, 0, 0, 0];
  }

  private information([type]: Bytes): Bytes {
    if (type === undefined) return [REFUSED, 0x09, WRONG_LENGTH];
    const text = (what: string, length: number) => [...new TextEncoder().encode(what.padEnd(length, "\0").slice(0, length))];
    switch (type) {
      case 0x00:
        return [0x49, 0x00, ...mask([0x02, 0x04, 0x0a], 0)];
      case 0x02:
        return [0x49, 0x02, 1, ...text(this.now().vin, 17)];
      case 0x04:
        return [0x49, 0x04, 1, ...text("FERROWICK-BAY-01", 16)];
      case 0x0a:
        return [0x49, 0x0a, 1, ...text("ECM", 4), ...text("-EngineControl", 16)];
      default:
        return [REFUSED, 0x09, SUB_NOT_SUPPORTED];
    }
  }
}

/** A PID of the frame that a code froze. */
function frozenPid(pid: number, kept: CodeRead | undefined): Bytes | undefined {
  if (pid === 0x02) return kept ? codeBytes(kept.code) : [0, 0];
  const frame: FreezeFrame | undefined = kept?.frame;
  if (!frame) return undefined;
  const { rpm, load, coolant, short, long } = frame;
  if (pid === 0x04) return load === undefined ? undefined : byte((load * 255) / 100);
  if (pid === 0x05) return coolant ? celsius(toSi(coolant)) : undefined;
  if (pid === 0x06) return short === undefined ? undefined : trim(short);
  if (pid === 0x07) return long === undefined ? undefined : trim(long);
  if (pid === 0x0c) return rpm === undefined ? undefined : word(rpm * 4);
  return undefined;
}
