import { formatNumber, formatQuantity, fromSi, toSi } from "../../units";
import type { CheckContext } from "../context";
import { lossIn60 } from "../hold";
import { instrumentDoubt } from "../instrument";
import { type Measure, type Verdict, voidVerdict, type ZoneKnowledge } from "../verdict";
import { type ChainRecord, LINK_NAMES, type LinkId, linksOf, type VacuumSource } from "./fields";
import type { Seen } from "./rows";

/** Share of the supply that a good solenoid hands on. */
const HANDED_ON = 0.8;

export type LinkState = "good" | "broken" | "unread";

/** Links that a device which moves on 12 V has shown to work. A diaphragm may move it and weep all the same. */
const SHOWN_BY_MOVING = ["supply", "outlet", "shaft"] as const;

/** One link: whether it is good, and how that reads. */
export function readLink(
  id: LinkId,
  { links, instrument, source }: ChainRecord,
  { limits }: Pick<CheckContext, "limits">,
): LinkState {
  const yes = (value: boolean | undefined): LinkState => (value === undefined ? "unread" : value ? "good" : "broken");
  // Fed 12 V it moves: what lies between supply and movement works, whether or not each link was read by itself.
  if (links.fed === true && SHOWN_BY_MOVING.some((l) => l === id) && links[id as (typeof SHOWN_BY_MOVING)[number]] === undefined)
    return "good";
  switch (id) {
    case "supply": {
      const enough = links.supply && toSi(links.supply) >= limits.actuatorSupply.value;
      // A pump that was not worked, or a reservoir that was drawn empty, says nothing against the car.
      return source && source !== "engine" && enough === false ? "unread" : yes(enough);
    }
    case "control":
      return yes(links.control && links.battery && toSi(links.control) >= limits.loadShare.value * toSi(links.battery));
    case "outlet":
      return yes(
        links.outlet &&
          toSi(links.outlet) >= HANDED_ON * Math.min(limits.actuatorSupply.value, toSi(links.supply ?? links.outlet)),
      );
    case "diaphragm": {
      const d = links.diaphragm;
      if (!d) return "unread";
      const division = Math.abs(toSi(instrument.division) / toSi({ value: 1, unit: d.unit }));
      const loss = lossIn60(
        [
          [0, d.start],
          [d.seconds, d.end],
        ],
        division,
      );
      return loss.low > limits.holdLoss.value ? "broken" : "good";
    }
    case "shaft":
      return yes(links.shaft);
    case "movement":
      return yes(links.movement);
    case "plate":
      return yes(links.plate);
  }
}

/** The same while the record is still being typed: what was read of one link stands, whatever is half typed of another. */
export function linkSoFar(
  id: LinkId,
  { links = {}, instrument, source }: Partial<ChainRecord>,
  context: Pick<CheckContext, "limits">,
): LinkState {
  const { diaphragm, ...others } = links;
  const { start, end, seconds } = (diaphragm ?? {}) as Partial<NonNullable<typeof diaphragm>>;
  const held =
    instrument?.division !== undefined && start !== undefined && end !== undefined && seconds !== undefined
      ? { diaphragm: { unit: "inHg" as const, start, end, seconds } }
      : {};
  return readLink(id, { links: { ...others, ...held }, instrument, source } as ChainRecord, context);
}

/** Where each link lives: what the suspects engine and the air map call it. */
export const PLACES: Record<LinkId, string> = {
  supply: "flap-line",
  control: "flap-circuit",
  outlet: "flap-solenoid",
  diaphragm: "flap-diaphragm",
  shaft: "flap-shaft",
  movement: "flap-shaft",
  plate: "flap-plate",
};

const BROKEN: Record<LinkId, string> = {
  supply: "the supply is short: line, reservoir, check valve, or the engine itself makes too little",
  control: "no voltage across it while commanded: fuse, wire or driver; go pin by pin through its circuit",
  outlet: "vacuum goes in and none comes out while commanded: the solenoid does not pass",
  diaphragm: "diaphragm or its pipe leaks: hold each by itself, and wiggle the pipe",
  shaft: "the shaft binds: carbon, a bent lever; freeing it by force breaks plates",
  movement: "everything before it is good and it does not move on command: lever off its ball, rod unhooked",
  plate: "a plate is broken or loose: it can fall into a cylinder, do not run the engine",
};

/** Advice on what to do where vacuum from elsewhere is too little to try anything on. */
const TOO_LITTLE: Partial<Record<VacuumSource, string>> = {
  reservoir:
    "too little left in the reservoir: drawn empty by trying, or it leaks. Run the engine, stop it and read at once; hold-test reservoir and check valve if it is short again",
  pump: "too little for the device: work the pump until the gauge shows the supply it needs",
};

/** Why the gauge cannot carry a verdict on any link. */
export const chainDoubt = ({ instrument }: ChainRecord, { limits }: Pick<CheckContext, "limits">) =>
  instrumentDoubt(instrument, limits.actuatorSupply.value, limits);

/** Allowance by which a meter may show more between a load's pins than at the battery, V. */
const METER_APART = 0.5;

/** Contradiction among the readings of a chain; undefined where they do not. */
function contradicts({ links, instrument }: ChainRecord): string | undefined {
  const { supply, outlet, control, battery, diaphragm } = links;
  if (
    diaphragm &&
    diaphragm.end > diaphragm.start + Math.abs(toSi(instrument.division) / toSi({ value: 1, unit: diaphragm.unit }))
  )
    return "vacuum on the diaphragm rose by itself: it was pumped up in between, or the gauge stuck";
  if (supply && outlet && toSi(outlet) > toSi(supply) + 2 * Math.abs(toSi(instrument.division)))
    return "more vacuum comes out of the solenoid than goes in: the two were read at different speeds, or the hoses are swapped. Read both again";
  if (control && battery && toSi(control) > toSi(battery) + METER_APART)
    return "more voltage across the solenoid than the battery has: measure both again, with the engine as it was";
  return undefined;
}

/** Judges the chain from supply to plate and stops at the first broken link: nothing beyond it can be told. */
export function judgeChain(record: ChainRecord, context: CheckContext): Verdict<Seen> {
  const { limits, layout } = context;
  const { links } = record;
  const measures: Measure[] = [
    ...(links.supply
      ? [
          {
            name: LINK_NAMES.supply,
            value: links.supply,
            limit: `${formatQuantity(fromSi(limits.actuatorSupply.value, links.supply.unit, "vacuum"))} or more at the solenoid's inlet`,
            limitSource: limits.actuatorSupply.source,
          },
        ]
      : []),
    ...(links.control && links.battery
      ? [
          {
            name: LINK_NAMES.control,
            value: links.control,
            limit: `${formatNumber(100 * limits.loadShare.value, 0)} % of the battery's ${formatQuantity(links.battery)}`,
            limitSource: limits.loadShare.source,
          },
        ]
      : []),
    ...(links.outlet ? [{ name: LINK_NAMES.outlet, value: links.outlet }] : []),
  ];
  const base = { measures, zones: [] };
  const doubt = chainDoubt(record, context);
  if (doubt) return { ...base, outcome: "unsure", headline: "Gauge not usable: zero or division", reasons: [doubt] };
  const cannot = readLink("supply", record, context) === "good" ? contradicts(record) : undefined;
  if (cannot) return voidVerdict(`${record.device}: these readings cannot be`, cannot);
  const chain = linksOf(record);
  for (const [i, id] of chain.entries()) {
    const state = readLink(id, record, context);
    const beyond = chain.slice(i + 1).filter((l) => readLink(l, record, context) !== "unread");
    const ignored =
      beyond.length > 0
        ? [`not judged, because they lie beyond it: ${beyond.map((l) => LINK_NAMES[l].toLowerCase()).join(", ")}`]
        : [];
    if (state === "unread") {
      return {
        ...base,
        outcome: "unsure",
        headline: `${record.device}: good so far; next: ${LINK_NAMES[id].toLowerCase()}`,
        reasons: [
          i === 0
            ? ((links.supply && record.source && TOO_LITTLE[record.source]) ?? "begin at the supply")
            : `good: ${chain
                .slice(0, i)
                .map((l) => LINK_NAMES[l].toLowerCase())
                .join(", ")}`,
          ...ignored,
        ],
      };
    }
    if (state === "broken") {
      const joint = layout.joints.find((j) => j.id === PLACES[id]);
      const leaks = id === "supply" || id === "diaphragm";
      const zones: ZoneKnowledge[] =
        joint && leaks
          ? [{ zone: joint.from, state: "leaking", joint: joint.id, why: `chain broken at: ${LINK_NAMES[id].toLowerCase()}` }]
          : [];
      return {
        ...base,
        outcome: "fail",
        headline: `${record.device}: broken at “${LINK_NAMES[id].toLowerCase()}”`,
        reasons: [
          id === "control" && links.fed ? "fed 12 V it moves: valve and vacuum side work, wire or driver does not" : BROKEN[id],
          ...(links.fed === false && id !== "control"
            ? ["fed 12 V it does not move either: the fault is not in its wiring"]
            : []),
          ...ignored,
        ],
        observation: `chain-broken:${PLACES[id]}`,
        // Vacuum from a hand pump puts the car's own supply to no test.
        tested: chain.slice(record.source === "pump" ? 1 : 0, i + 1).map((l) => PLACES[l]),
        zones,
      };
    }
  }
  if (record.source === "pump") {
    return {
      ...base,
      outcome: "unsure",
      headline: `${record.device}: works on the pump's vacuum; its own supply was not tried`,
      reasons: ["read the supply with the engine running, or from the reservoir with the engine just stopped"],
    };
  }
  return {
    ...base,
    outcome: "pass",
    headline: `${record.device}: every link works, from supply to plate`,
    reasons: [],
    observation: "chain-good",
    tested: [...new Set(Object.values(PLACES)), "flap-pipe"],
  };
}
