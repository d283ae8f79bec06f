import { formatNumber, toSi } from "../../units";
import { saysOf, tight } from "../claim";
import type { CheckContext } from "../context";
import type { CheckKind, Plan } from "../contract";
import { lossDoubt } from "../instrument";
import { trappedHole, trappedMeasure } from "../trapped";
import { evapOnly } from "../unfit";
import { type Measure, type Verdict, voidVerdict } from "../verdict";
import { capCandidates } from "./candidates";
import { type CapRecord, capFields, capForm } from "./fields";
import { rows, type Seen } from "./rows";

export * from "./fields";

/** Time that the limit is stated for, s, and the shortest that is judged. */
const STATED = 10;

function planCap({ limits }: CheckContext): Plan {
  return {
    steps: [
      { text: "Take the cap off as it is: do not tighten it first. Look at its seal." },
      { text: "Prove the tester with its blank: it must hold by itself." },
      {
        text: `Cap on the tester, pump up to the tester's mark, write start and end down over ${STATED} s: it may lose ${formatNumber(100 * limits.capLoss.value, 0)} %.`,
      },
      { text: "A new cap passes the same test before it goes on the car." },
    ],
    displaces: [{ joint: "filler-cap", what: "filler cap off" }],
    cautions: ["fuel-vapour"],
    clocks: [{ name: "Hold", seconds: STATED }],
  };
}

/** What its seal says beside the reading. */
const SEALS = {
  whole: [],
  cracked: ["its seal is cracked"],
  dirty: ["its seal is dirty: clean it and test again; cleaning is a temporary repair"],
} as const satisfies Readonly<Record<NonNullable<CapRecord["seal"]>, readonly string[]>>;

/** Judges a cap on its tester by the share of its pressure it loses in 10 s, less what the gauge cannot tell. */
export function judgeCap(record: CapRecord, { limits }: CheckContext): Verdict<Seen> {
  const name = record.part === "new" ? "The new cap" : "The cap";
  if (!record.testerProved)
    return voidVerdict(`${name} was not tested`, "the tester was not proved with its blank: it may leak itself");
  const limit = limits.capLoss.value;
  const division = Math.abs(toSi(record.instrument.division) / toSi({ value: 1, unit: record.unit }));
  if (record.end > record.start + 1.01 * division)
    return voidVerdict(
      `${name}: the reading cannot be`,
      "the pressure rose on the tester: it was pumped up in between, or the gauge stuck",
    );
  const share = (end: number) =>
    Math.min(1, Math.max(0, ((record.start - end) / record.start) * (STATED / Math.max(1, record.seconds))));
  const [loss, low, high] = [share(record.end), share(record.end + division), share(record.end - division)];
  const fitted = record.part === "fitted";
  const measures: Measure[] = [
    {
      name: `Loses in ${STATED} s`,
      value: { value: 100 * loss, unit: "%" },
      low: 100 * low,
      high: 100 * high,
      limit: `${formatNumber(100 * limit, 0)} %`,
      limitSource: limits.capLoss.source,
    },
  ];
  const start = toSi({ value: record.start, unit: record.unit });
  if (record.volume) {
    const lost = (end: number) => (record.start - end) / record.start;
    const shares = { share: lost(record.end), low: lost(record.end + division), high: lost(record.end - division) };
    measures.push(trappedMeasure(trappedHole(record.volume, start, record.seconds, shares)));
  }
  const about = (observation: Seen) => (fitted ? { observation, tested: ["filler-cap"] } : {});
  const seal = record.seal === undefined ? [] : SEALS[record.seal];
  if (low > limit) {
    return {
      outcome: "fail",
      headline: `${name} does not hold`,
      measures,
      reasons: [
        ...seal,
        fitted ? "renew it with one that passes the same test; then look at the neck's sealing face" : "do not fit it",
      ],
      ...about("hold-leaks:filler-cap"),
      zones: fitted
        ? [{ zone: "neck", state: "leaking", joint: "filler-cap", why: "the cap lost its pressure on the tester" }]
        : [],
    };
  }
  const doubt = lossDoubt(record.instrument, { start, limit, seconds: record.seconds, per: STATED }, limits);
  const doubts = [
    doubt,
    record.seconds < STATED ? `watch it for ${STATED} s or longer` : undefined,
    high > limit ? "at the limit: watch it longer" : undefined,
    record.seal === undefined ? "nobody has looked at its seal yet" : undefined,
    record.seal === "cracked" ? "it holds on the tester with a cracked seal: it may not on the neck. Renew it" : undefined,
  ].filter((d) => d !== undefined);
  if (doubts.length > 0) return { outcome: "unsure", headline: `${name}: not sure yet`, measures, reasons: doubts, zones: [] };
  return {
    outcome: "pass",
    headline: `${name} holds on its tester`,
    measures,
    reasons: [...seal, "the neck's own sealing face is not in this test"],
    ...about("hold-good"),
    zones: [],
  };
}

export const cap: CheckKind<CapRecord, unknown, Seen> = {
  id: "cap",
  name: "Filler cap",
  words: { pass: "Tight", fail: "Leaking" },
  aim: "The cap by itself on its tester: what smoke through the neck leaves out",
  engine: "standing",
  tool: "hand-pump",
  unfit: evapOnly,
  role: "measures",
  shelf: "vapour",
  families: ["evap"],
  rows,
  candidates: capCandidates,
  claims: (record, verdict, { layout }) =>
    verdict.outcome === "void" || record.part === "new" ? [] : [tight(layout, "filler-cap", saysOf(verdict.outcome))],
  byPart: true,
  setup: () => ["filler-cap"],
  irrelevant: {
    seal: "a dirty seal that holds, holds: wipe it before it goes on",
  },
  fields: capFields,
  form: capForm,
  plan: planCap,
  judge: judgeCap,
  readings: (r) => [
    { reading: "cap pressure, start", value: r.start, unit: r.unit, kind: "gauge", point: 0, seconds: 0 },
    { reading: "cap pressure, end", value: r.end, unit: r.unit, kind: "gauge", point: 1, seconds: r.seconds },
  ],
  place: () => "filler-cap",
  onBench: (r) => r.part === "new",
};
