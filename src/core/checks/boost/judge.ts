import { STANDARD_TEMPERATURE } from "../../gas/air";
import { type BoostShapeId, boostThatMatters, type JudgedBoost, judgeBoost, MUST_SHOW } from "../../gas/boost";
import type { BoostLog } from "../../gas/boost-log";
import { STANDING_NAMES, type StandingFault } from "../../gas/key-on";
import { formatNumber, formatQuantity, fromSi, type Quantity, toSi } from "../../units";
import { isKnown } from "../../vehicle";
import type { CheckContext } from "../context";
import { type Measure, type Verdict, voidVerdict } from "../verdict";
import { type BoostRecord, egrOpen, isSteady } from "./fields";
import type { Seen } from "./rows";

/** No more than this is ever said, %. */
const MOST_SURE = 99.9;
/** Odds from which a shape is called by its name. */
const SURE = 0.7;
/** Boost that is short or over for less is a transient, s. */
const TRANSIENT = 2;

/** A record as the judge of the physics reads it, SI: what the meter shows while exhaust is led back tells nothing of breathing. */
function boostLogOf(
  { points, keyOn, egr, ambient, ownEfficiency }: BoostRecord,
  { vehicle }: Pick<CheckContext, "vehicle">,
): BoostLog {
  const si = <T extends { readonly [name: string]: Quantity | undefined }>(read: T) =>
    Object.fromEntries(Object.entries(read).flatMap(([name, q]) => (q ? [[name, toSi(q)]] : []))) as { [K in keyof T]?: number };
  const standing = keyOn
    ? [{ rpm: 0, chargeTemperature: STANDARD_TEMPERATURE, ...si({ ...keyOn, ambient: undefined, barometer: keyOn.ambient }) }]
    : [];
  return {
    ambient: toSi(ambient),
    fuel: vehicle.fuel,
    displacement: toSi(vehicle.displacement),
    egr: points.every(egrOpen) ? "open" : egr,
    ...(ownEfficiency === undefined ? {} : { known: ownEfficiency / 100 }),
    points: [
      ...standing,
      ...points.map((p) => ({
        rpm: p.rpm,
        ...(p.time === undefined ? {} : { time: p.time }),
        ...(p.trim === undefined ? {} : { trim: p.trim / 100 }),
        chargeTemperature: toSi(p.chargeTemperature),
        ...si({ map: p.map, charge: p.charge, asked: p.asked, maf: egrOpen(p) ? undefined : p.maf }),
        ...(p.moving ? { moving: { ...p.moving, pressure: 1e3 * p.moving.pressure } } : {}),
        ...(p.actuator ? { actuator: { command: p.actuator.command / 100, position: p.actuator.position / 100 } } : {}),
      })),
    ],
  };
}

/** Correction that a logged EGR takes from the log. */
function egrOpenReasons({ points }: BoostRecord): string[] {
  const open = points.filter(egrOpen);
  if (open.length === 0) return [];
  if (!points.some((p) => p.maf))
    return ["EGR was open and no air flow was logged: how much of the charge was exhaust is not known, log the MAF too"];
  return [`EGR was open at ${open.length} of ${points.length} points: they show no volumetric efficiency and are left out`];
}

/**
 * Reasons that leave delivery open though most points hold what is asked: limp mode, swings, or a stretch that lasted and that a steady
 * point shows, so that it is no mere lag of the compressor. @returns headline and reason; undefined where nothing does.
 */
export function deliveryDoubt({ points, ambient, short, over, hunts, limp }: BoostRecord): readonly [string, string] | undefined {
  if (limp) return ["Boost held until limp mode cut it", "what cut it is not found: read the codes, then their part"];
  if (hunts)
    return [
      "Boost hunts around the requested value",
      "a sticking actuator or solenoid does that: pump it by hand, start to end and back",
    ];
  const by = points.filter(isSteady).flatMap((p) => {
    const got = p.charge ?? p.map;
    const asked = p.asked && toSi(p.asked);
    return got && asked && asked > toSi(ambient) ? [(asked - toSi(got)) / boostThatMatters(asked, toSi(ambient))] : [];
  });
  const lasts = (s: BoostRecord["short"]) => s !== undefined && s.seconds >= TRANSIENT;
  if (lasts(short) && by.some((x) => x > 1))
    return ["Boost holds for the most part, and once fell short for longer than a moment", "log that speed and load again"];
  if (lasts(over) && by.some((x) => x < -1))
    return ["Boost holds for the most part, and once went over for longer than a moment", "log that speed and load again"];
  return undefined;
}

/**
 * Whether boost certainly missed what was asked, whatever did it: for longer than a moment, and at a steady point that shows it too,
 * or at most of the points that were typed. Undefined where it did not.
 */
function certainlyOff({ points, ambient, short, over, limp, source }: BoostRecord): "short" | "over" | undefined {
  if (limp) return undefined;
  const by = points.filter(isSteady).flatMap((p) => {
    const got = p.charge ?? p.map;
    const asked = p.asked && toSi(p.asked);
    return got && asked && asked > toSi(ambient) ? [(asked - toSi(got)) / boostThatMatters(asked, toSi(ambient))] : [];
  });
  const lasted = (s: BoostRecord["short"]) => s !== undefined && s.seconds >= TRANSIENT;
  const many = (n: number) => source?.kind === "typed" && n >= 2 && n >= by.length / 2;
  const [shorter, higher] = [by.filter((x) => x > 1).length, by.filter((x) => x < -1).length];
  if (shorter > 0 && (lasted(short) || many(shorter))) return "short";
  return higher > 0 && (lasted(over) || many(higher)) ? "over" : undefined;
}

/** Physical estimate of a record. */
export const judgedOf = (record: BoostRecord, context: Pick<CheckContext, "vehicle">): JudgedBoost =>
  judgeBoost(boostLogOf(record, context));

const SAYS: Readonly<Record<BoostShapeId, { readonly headline: string; readonly seen: Seen }>> = {
  sound: { headline: "Boost holds the requested value, and no metered air is lost", seen: "boost-sound" },
  "leak-after-meter": { headline: "Metered air is lost under boost: a leak after the meter", seen: "boost-leak" },
  "restricted-or-lazy": {
    headline: "Boost falls short and the MAF with it: restricted before the compressor, or an actuator that does not close",
    seen: "boost-short",
  },
  "over-boost": { headline: "Overboost: boost goes above the requested value", seen: "boost-over" },
  "sensor-offset": { headline: "A pressure sensor is off with the engine standing", seen: "boost-sensor" },
  "exhaust-restricted": {
    headline: "The more boost, the less it breathes: look behind the turbine",
    seen: "boost-exhaust",
  },
  "meter-or-breathing": {
    headline:
      "MAF and VE disagree by the same percentage across the range: the MAF reads wrong, or the engine breathes worse or better",
    seen: "boost-meter",
  },
};
/** Where one of the two is left. */
const ALONE = {
  meter: "The MAF reads wrong by the same percentage across the range",
  engine: "The engine's VE has changed across the range; the MAF agrees with the trims",
} as const;

/** Judges the charge side by what a log shows of it; clears it only where a leak that matters would have shown. */
export function judgeBoostCheck(record: BoostRecord, context: CheckContext): Verdict<Seen> {
  const { vehicle } = context;
  if (vehicle.induction !== "turbo" && isKnown(vehicle, "induction"))
    return voidVerdict("This log proves nothing", "this engine has no compressor: what looks like boost is a unit or a sensor");
  if (!record.warm)
    return voidVerdict("This log proves nothing", "the engine was cold: boost is held back on purpose, warm it up");
  const judged = judgedOf(record, context);
  const [first] = judged.shapes;
  const measures = measuresOf(record, judged);
  const reasons = [...limpSays(record), ...stretchSays(record), ...judged.reasons, ...egrOpenReasons(record)];
  const base = { measures, zones: [] };
  const certain = certainlyOff(record);
  if ((!first || first.odds < SURE) && certain)
    return {
      ...base,
      outcome: "fail",
      headline: `Boost is ${certain} of the requested value: more than one cause fits`,
      reasons: [...reasons, "tell them apart by air or smoke, the actuator by hand, and the MAF beside the boost"],
      observation: certain === "short" ? "boost-short" : "boost-over",
    };
  if (!first || first.odds < SURE) {
    const second = judged.shapes[1];
    return {
      ...base,
      outcome: "unsure",
      headline: "More than one cause fits this log",
      reasons: [
        ...reasons,
        `${[first, second]
          .map((s) => s && `${SAYS[s.id].headline.split(":")[0]?.toLowerCase()} ${formatNumber(100 * s.odds, 0)} %`)
          .filter(Boolean)
          .join(", ")}: log a longer pull with all channels`,
      ],
    };
  }
  if (first.id === "sensor-offset" && judged.standing) return { ...base, reasons, ...standingVerdict(judged.standing) };
  const { headline: usual, seen } = SAYS[first.id];
  const headline =
    first.id !== "meter-or-breathing" || (first.members.includes("MAF") && first.members.length > 1)
      ? usual
      : ALONE[first.members.includes("MAF") ? "meter" : "engine"];
  if (first.id !== "sound") {
    return {
      ...base,
      outcome: "fail",
      headline,
      reasons: [...reasons, ...(first.members.length > 0 ? [`it can be: ${first.members.join(", ")}`] : [])],
      observation: seen,
    };
  }
  const doubt = deliveryDoubt(record);
  if (doubt) return { ...base, outcome: "unsure", headline: doubt[0], reasons: [...reasons, doubt[1]] };
  const open = openOf(record, judged);
  if (open)
    return {
      ...base,
      outcome: "unsure",
      headline:
        judged.smallestVisible === null
          ? "Nothing wrong shows, and this log could not have shown it"
          : `Nothing wrong shows down to a leak of ${formatNumber(1000 * judged.smallestVisible, 1)} mm`,
      reasons: [open, ...reasons],
    };
  const below =
    judged.smallestVisible === null
      ? []
      : [`a hole below ${mm(judged.smallestVisible)} does not show in a log: smoke or air at boost pressure finds it`];
  return { ...base, outcome: "pass", headline, reasons: [...below, ...reasons], observation: seen };
}

/** Sensors that do not agree with the engine standing: the car's own convict; what was typed of the bay alone does not. */
function standingVerdict({ sensors }: StandingFault): Pick<Verdict<Seen>, "outcome" | "headline" | "observation"> {
  const [only] = sensors;
  if (only === "outside" && sensors.length === 1)
    return {
      outcome: "unsure",
      headline:
        "Every sensor of the car agrees, and the ambient pressure of the conditions does not: correct it, a weather report's holds at sea level",
    };
  const boosts = sensors.some((id) => id !== "exhaust" && id !== "filter");
  const seen: Seen | undefined = boosts ? "boost-sensor" : sensors.includes("filter") ? "standing-filter" : undefined;
  return {
    outcome: "fail",
    headline:
      only && sensors.length === 1
        ? `The ${STANDING_NAMES[only]} is off with the engine standing`
        : "Pressure sensors do not agree with the engine standing",
    ...(seen ? { observation: seen } : {}),
  };
}

/** Why a log that shows nothing wrong clears nothing; undefined where it does. */
function openOf({ points }: BoostRecord, { efficiency, smallestVisible, mustShow }: JudgedBoost): string | undefined {
  if (!points.some((p) => p.asked)) return "requested boost was not logged: log it beside what was delivered";
  if (!efficiency || smallestVisible === null || mustShow === null) return "MAF and volumetric efficiency could not be compared";
  if (smallestVisible > mustShow)
    return `a leak of ${mm(mustShow)}, ${formatNumber(100 * MUST_SHOW, 0)} % of the flow, must be caught, which is smaller than this log could have shown: more points on and off boost, or air and smoke`;
  return undefined;
}
const mm = (metres: number) => `${formatNumber(1000 * metres, 1)} mm`;

const limpSays = ({ limp }: BoostRecord): string[] =>
  limp
    ? [
        `limp mode set in ${formatNumber(limp.at, 0)} s into the log${limp.after ? `, after ${formatQuantity(limp.after)}` : ""}: boost is no longer asked for from there on, so a hiss that stopped is no cure, and what comes after it says nothing of boost`,
      ]
    : [];

const stretchSays = ({ short, over }: BoostRecord): string[] =>
  [
    [short, "below requested"],
    [over, "above requested"],
  ].flatMap(([s, what]) =>
    s && typeof s === "object"
      ? [
          `${what} for ${formatNumber(s.seconds, 1)} s between ${formatNumber(s.from, 0)} and ${formatNumber(s.to, 0)} rpm${s.seconds < TRANSIENT ? ": a transient" : ""}`,
        ]
      : [],
  );

function measuresOf(record: BoostRecord, { efficiency, hole, shapes, smallestVisible, mustShow }: JudgedBoost): Measure[] {
  const caught =
    mustShow === null
      ? {}
      : {
          limit: `${mm(mustShow)} must be caught`,
          limitSource: `${formatNumber(100 * MUST_SHOW, 0)} % of the flow at most boost`,
        };
  const percent = (x: number) => 100 * x;
  const gauge = (pa: number) => fromSi(pa - toSi(record.ambient), "bar", "gauge");
  const most = record.points.toSorted(
    (a, b) => toSi(b.charge ?? b.map ?? record.ambient) - toSi(a.charge ?? a.map ?? record.ambient),
  )[0];
  const got = most && (most.charge ?? most.map);
  return [
    ...(most && got
      ? [
          {
            name: `Most boost delivered, ${most.rpm} rpm`,
            value: gauge(toSi(got)),
            ...(most.asked ? { limit: `${formatQuantity(gauge(toSi(most.asked)))} asked`, limitSource: "the ECU" } : {}),
          },
        ]
      : []),
    ...(efficiency
      ? [
          {
            name: "VE off boost, on manifold density",
            value: { value: percent(efficiency.value), unit: "%" as const },
            low: percent(efficiency.low),
            high: percent(efficiency.high),
          },
        ]
      : []),
    ...(hole
      ? [
          {
            name: "Leak after the meter, as a sharp-edged hole",
            value: { value: 1000 * hole.diameter, unit: "mm" as const },
            low: 1000 * hole.low,
            high: 1000 * hole.high,
            ...caught,
          },
        ]
      : smallestVisible !== null
        ? [
            {
              name: "Smallest leak it could have shown",
              value: { value: 1000 * smallestVisible, unit: "mm" as const },
              ...caught,
            },
          ]
        : []),
    ...(shapes[0]
      ? [{ name: "Odds of that", value: { value: Math.min(MOST_SURE, percent(shapes[0].odds)), unit: "%" as const } }]
      : []),
  ];
}
