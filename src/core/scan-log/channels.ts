import type { Dimension, PressureKind, UnitId } from "../units";

/** A quantity that scan tools log and our checks read. */
export interface Channel {
  readonly id: ChannelId;
  readonly name: string;
  /** `time`, `percent`, `ppm`, `rpm`, `ratio`, `volt` and `state` are bare; the rest have units and are kept in SI. */
  readonly measures: Dimension | "clock" | "percent" | "ppm" | "rpm" | "ratio" | "volt" | "state" | "speed";
  readonly kind?: PressureKind;
  /** Taken when the header names no unit; shown as assumed. */
  readonly unit?: UnitId;
  /** Header spellings, most telling first; matched on words, so order and punctuation do not matter. */
  readonly names: readonly string[];
}

export type ChannelId =
  | "time"
  | "rpm"
  | "maf"
  | "map"
  | "charge"
  | "charge-asked"
  | "charge-temperature"
  | "actuator-command"
  | "actuator-position"
  | "barometer"
  | "egr"
  | "exhaust-pressure"
  | "exhaust-temperature"
  | "filter-pressure"
  | "coolant"
  | "intake-temperature"
  | "short-trim-1"
  | "long-trim-1"
  | "short-trim-2"
  | "long-trim-2"
  | "total-trim-1"
  | "total-trim-2"
  | "loop"
  | "throttle"
  | "load"
  | "lambda-1"
  | "o2-1"
  | "speed"
  | "tank-pressure"
  | "fuel-level"
  | "purge"
  | "gas-co"
  | "gas-co2"
  | "gas-o2"
  | "gas-hc"
  | "gas-no";

const trimNames = (term: "short" | "long", bank: 1 | 2) => {
  const t = term === "short" ? ["short term", "stft", "shrtft", "short"] : ["long term", "ltft", "longft", "long"];
  return [
    `${t[0]} fuel trim bank ${bank}`,
    `${t[0]} trim bank ${bank}`,
    `${t[0]} fuel trim ${bank}`,
    `${t[0]} ft b${bank}`,
    `${t[1]} bank ${bank}`,
    `${t[1]} b${bank}`,
    `${t[1]}${bank}`,
    `${t[2]}${bank}`,
    `${t[3]} trim b${bank}`,
    ...(bank === 1 ? [`${t[0]} fuel trim`, `${t[0]} trim`, `${t[1]}`, `${t[2]}`, `${t[3]} fuel trim`, `${t[3]} ft`] : []),
  ];
};

export const CHANNELS: readonly Channel[] = [
  {
    id: "time",
    name: "Time",
    measures: "clock",
    names: ["time", "timestamp", "elapsed time", "time stamp", "seconds", "zeit", "t", "clock"],
  },
  { id: "rpm", name: "Engine speed", measures: "rpm", names: ["engine rpm", "rpm", "engine speed", "motordrehzahl", "drehzahl"] },
  {
    id: "maf",
    name: "MAF flow",
    measures: "mass-flow",
    unit: "g/s",
    names: ["mass air flow", "maf", "mass air flow rate", "air flow rate", "maf sensor", "air mass", "luftmasse"],
  },
  {
    id: "map",
    name: "Manifold pressure",
    measures: "pressure",
    kind: "absolute",
    unit: "kPa",
    names: [
      "intake manifold absolute pressure",
      "manifold absolute pressure",
      "intake manifold pressure",
      "manifold pressure",
      "map",
      "saugrohrdruck",
    ],
  },
  {
    id: "charge",
    name: "Charge pressure",
    measures: "pressure",
    kind: "absolute",
    unit: "kPa",
    names: ["charge pressure", "boost pressure", "charge air pressure", "throttle inlet pressure", "ladedruck"],
  },
  {
    id: "charge-asked",
    name: "Requested charge pressure",
    measures: "pressure",
    kind: "absolute",
    unit: "kPa",
    names: [
      "commanded boost pressure",
      "desired boost pressure",
      "requested boost pressure",
      "target boost pressure",
      "charge pressure asked for",
      "boost pressure specified",
      "boost asked",
      "boost target",
      "ladedruck soll",
    ],
  },
  {
    id: "charge-temperature",
    name: "Charge air temperature",
    measures: "temperature",
    unit: "°C",
    names: ["charge air temperature", "charge temperature", "intake manifold temperature", "ladelufttemperatur"],
  },
  {
    id: "actuator-command",
    name: "Boost actuator command",
    measures: "percent",
    names: ["boost actuator command", "commanded vane position", "wastegate duty", "boost control duty", "vane position asked"],
  },
  {
    id: "actuator-position",
    name: "Boost actuator position",
    measures: "percent",
    names: ["boost actuator position", "vane position", "wastegate position"],
  },
  {
    id: "barometer",
    name: "Ambient pressure",
    measures: "pressure",
    kind: "absolute",
    unit: "kPa",
    names: ["barometric pressure", "barometer", "baro", "ambient pressure", "umgebungsdruck"],
  },
  {
    id: "egr",
    name: "EGR",
    measures: "percent",
    names: [],
  },
  {
    id: "exhaust-pressure",
    name: "Exhaust pressure",
    measures: "pressure",
    kind: "absolute",
    unit: "kPa",
    names: ["exhaust manifold pressure", "exhaust back pressure"],
  },
  {
    id: "exhaust-temperature",
    name: "Exhaust temperature before the filter",
    measures: "temperature",
    unit: "°C",
    names: ["exhaust temperature before filter"],
  },
  {
    id: "filter-pressure",
    name: "Filter pressure difference",
    measures: "pressure",
    kind: "gauge",
    unit: "hPa",
    names: ["particulate filter differential pressure", "dpf differential pressure"],
  },
  {
    id: "coolant",
    name: "Coolant",
    measures: "temperature",
    unit: "°C",
    names: ["engine coolant temperature", "coolant temperature", "coolant temp", "ect", "coolant", "kühlmitteltemperatur"],
  },
  {
    id: "intake-temperature",
    name: "Intake air temperature",
    measures: "temperature",
    unit: "°C",
    names: ["intake air temperature", "intake air temp", "iat", "ansauglufttemperatur"],
  },
  { id: "short-trim-1", name: "Short-term trim, bank 1", measures: "percent", names: trimNames("short", 1) },
  { id: "long-trim-1", name: "Long-term trim, bank 1", measures: "percent", names: trimNames("long", 1) },
  { id: "short-trim-2", name: "Short-term trim, bank 2", measures: "percent", names: trimNames("short", 2) },
  { id: "long-trim-2", name: "Long-term trim, bank 2", measures: "percent", names: trimNames("long", 2) },
  { id: "total-trim-1", name: "Total trim, bank 1", measures: "percent", names: ["total fuel trim bank 1"] },
  { id: "total-trim-2", name: "Total trim, bank 2", measures: "percent", names: ["total fuel trim bank 2"] },
  {
    id: "loop",
    name: "Loop state",
    measures: "state",
    names: ["fuel system status", "fuel system 1 status", "fuel system", "loop status", "closed loop", "loop state", "loop"],
  },
  {
    id: "throttle",
    name: "Throttle",
    measures: "percent",
    names: ["throttle position", "throttle", "tps", "absolute throttle position"],
  },
  {
    id: "load",
    name: "Calculated load",
    measures: "percent",
    names: ["calculated load", "engine load", "calculated engine load", "load"],
  },
  {
    id: "lambda-1",
    name: "Lambda, bank 1",
    measures: "ratio",
    names: ["lambda bank 1", "lambda", "equivalence ratio", "wideband lambda"],
  },
  {
    id: "o2-1",
    name: "O2 sensor, bank 1",
    measures: "volt",
    names: ["o2 sensor bank 1 sensor 1", "o2 b1s1", "o2 voltage bank 1", "oxygen sensor b1s1"],
  },
  { id: "speed", name: "Vehicle speed", measures: "speed", names: ["vehicle speed", "speed", "vss"] },
  {
    id: "tank-pressure",
    name: "Tank pressure",
    measures: "pressure",
    kind: "gauge",
    unit: "Pa",
    names: [
      "evap system vapour pressure",
      "evap system vapor pressure",
      "fuel tank pressure",
      "tank pressure",
      "evap vapor pressure",
      "evap pressure",
      "ftp",
      "tankdruck",
    ],
  },
  {
    id: "fuel-level",
    name: "Fuel level",
    measures: "percent",
    names: ["fuel tank level input", "fuel level", "fuel tank level", "tankfüllstand"],
  },
  {
    id: "purge",
    name: "Commanded purge",
    measures: "percent",
    names: ["commanded evaporative purge", "commanded evap purge", "commanded purge", "evap purge", "purge duty"],
  },
  // An analyser's gases go by their whole name alone: a word of two letters stands in many a header.
  { id: "gas-co", name: "CO of the exhaust", measures: "percent", names: [] },
  { id: "gas-co2", name: "CO₂ of the exhaust", measures: "percent", names: [] },
  { id: "gas-o2", name: "O₂ of the exhaust", measures: "percent", names: [] },
  { id: "gas-hc", name: "HC of the exhaust, as hexane", measures: "ppm", names: [] },
  { id: "gas-no", name: "NO of the exhaust", measures: "ppm", names: [] },
];

export const channelById = (id: ChannelId): Channel => CHANNELS.find((c) => c.id === id) as Channel;
