import { formatNumber } from "../units";

/** Pressure sensors with the key on and the engine standing, Pa absolute; the filter's shows a difference, Pa. */
export interface StandingPressures {
  /** The air outside, as the conditions have it */
  readonly outside: number;
  /** The ECU's own sensor of the air outside */
  readonly ambient?: number;
  readonly map?: number;
  readonly charge?: number;
  /** Before the turbine or the filter */
  readonly exhaust?: number;
  /** Before the particulate filter over behind it */
  readonly filter?: number;
}

export type StandingSensor = keyof StandingPressures;

/** Sensors that do not agree with the engine standing: the one that differs, or all it can be where nothing tells which. */
export interface StandingFault {
  readonly sensors: readonly StandingSensor[];
  readonly why: string;
}

/** Sensors that differ by more with the engine standing are off, Pa; shop practice. */
export const KEY_ON_APART = 2000;
/** A filter's sensor that shows more than a fifth of what is allowed at idle is off its zero, Pa; shop practice. */
const FILTER_ZERO = 200;

export const STANDING_NAMES: Readonly<Record<StandingSensor, string>> = {
  outside: "the ambient pressure given",
  ambient: "ambient sensor",
  map: "manifold sensor",
  charge: "charge sensor",
  exhaust: "exhaust pressure sensor",
  filter: "filter pressure sensor",
};

const ABSOLUTE = ["outside", "ambient", "map", "charge", "exhaust"] as const;

/**
 * Nothing moves with the engine standing, so every sensor shows the air outside, and a difference none: the one that lies more than
 * 2 kPa from the others, which agree, is off. Where two readings stand alone, or no others agree, all that it can be are named.
 * @param filterZero Pa that a filter's sensor may show. @returns undefined where all agree, or nothing was read beside the air outside.
 */
export function standingFault(read: StandingPressures, filterZero = FILTER_ZERO): StandingFault | undefined {
  const list = ABSOLUTE.flatMap((id) => (read[id] === undefined ? [] : [{ id, value: read[id] }]));
  const span = (of: readonly { value: number }[]) => {
    const values = of.map((r) => r.value);
    return Math.max(...values) - Math.min(...values);
  };
  const odd = list.filter((r) => list.length > 2 && span(list.filter((o) => o !== r)) <= KEY_ON_APART);
  const apart = span(list) <= KEY_ON_APART ? [] : odd.length > 0 ? odd : list;
  const filterOff = read.filter !== undefined && Math.abs(read.filter) > filterZero;
  const sensors = [...apart.map((r) => r.id), ...(filterOff ? (["filter"] as const) : [])];
  if (sensors.length === 0) return undefined;
  const says = (r: { id: StandingSensor; value: number }) => `${STANDING_NAMES[r.id]} ${kPa(r.value)}`;
  const [only] = apart;
  const others = list.filter((r) => r !== only);
  const because = [
    ...(only && apart.length === 1
      ? [
          `the ${STANDING_NAMES[only.id].replace("the ", "")} reads ${kPa(only.value)} absolute while the others agree (${others.map(says).join(", ")}): it is off by ${kPa(Math.abs(others.reduce((sum, o) => sum + o.value, 0) / others.length - only.value))}`,
        ]
      : []),
    ...(apart.length > 1
      ? [`these do not agree (${apart.map(says).join(", ")}, absolute): one of them is off, compare them with a gauge`]
      : []),
    ...(filterOff
      ? [`the filter's pressure sensor shows ${formatNumber((read.filter as number) / 100, 1)} hPa where there can be none`]
      : []),
  ];
  return { sensors, why: `with the engine standing ${because.join("; ")}` };
}

const kPa = (pa: number) => `${formatNumber(pa / 1000, 1)} kPa`;
