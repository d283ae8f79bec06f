import { answer, choice, fields, formOf, group, list, quantity, type RecordOf, taken, tick } from "../../form";
import type { HouseMethods } from "../../shop/settings";
import type { Joint } from "../../vehicle";
import { checkForm } from "../check-form";
import { joint, moment, numbers, percent, rpm, takenSource } from "../fields";

export const AGENT_NAMES = { gas: "Enrichment gas", water: "Water", soap: "Soapy water" } as const;
export type Agent = keyof typeof AGENT_NAMES;
/** The agent the house method asks for. */
export const houseAgent = (house: HouseMethods): Agent => (house.firstLocator === "spray" ? "water" : "gas");

const trim = (when: "before" | "after") => percent(`Trim ${when}`, -100, 100, { swings: true, label: `Total trim ${when}, %` });
const speed = (when: "before" | "after") => rpm({ label: `Speed ${when}, rpm` });

/** One spot, one tap. */
export const probeTapFields = fields({
  joint: joint().asked({ type: "place", label: "Spot" }),
  /** s on the log's clock */
  at: moment("The tap's time", { label: "Tapped at, s" }).optional(),
  /** Brought to it while the hose or duct was bent: a crack that opens as it moves */
  flexed: tick().optional(),
  /** Read by eye when there is no log: total trim in percent, engine speed in 1/min */
  typed: group({
    /** The tool showed the short-term trim alone: what moves within seconds shows in it as well */
    shows: choice(
      { short: "Short-term alone" },
      {
        label: "The tool shows",
        silent: ["total", "Short and long, added up"],
      },
    ).optional(),
    trimBefore: trim("before"),
    trimAfter: trim("after"),
    rpmBefore: speed("before"),
    rpmAfter: speed("after"),
  }).optional(),
});
export type ProbeTap = RecordOf<typeof probeTapFields>;

const column = () => numbers(20_000).optional();
/** Series of the log around the taps; every column as long as `time`. */
const series = group({
  /** s */
  time: numbers(20_000, "The series has no time"),
  /** Total trim, percent, mean of the banks */
  trim: column(),
  /** 1/min */
  rpm: column(),
  lambda: column(),
  /** Percent */
  throttle: column(),
  /** 1 closed, 0 open */
  loop: column(),
}).rule("lengths", "Every column of the series is as long as its time", (all) => {
  const columns = Object.values(all).filter((c): c is number[] => Array.isArray(c));
  return columns.every((c) => c.length === columns[0]?.length);
});
export type ProbeSeries = (typeof series)["value"];

/** A probe: its taps are marked as they happen, the log is read against them. */
export const probeFields = fields({
  agent: choice(AGENT_NAMES, { name: "The agent", label: "Agent" }).setUp(),
  coolant: quantity("coolant").optional(),
  /** Loop state by the scan tool; the series says it where it has the column */
  closedLoop: answer({
    label: "Loop",
    yes: "Closed",
    no: "Open",
    hint: "In open loop trims say nothing; a log that has the loop says it itself",
    missing: "Say whether the loop was closed",
  }),
  taps: list(probeTapFields.group, {
    label: "Taps",
    min: [1, "No tap yet: mark one as you bring the agent to a spot"],
    max: 200,
    empty: [],
  }),
  series: series.optional().taken("The log around them"),
  source: takenSource({ kind: "typed" }),
});
export type ProbeRecord = RecordOf<typeof probeFields>;

export const probeForm = checkForm(probeFields, {
  aside: {
    /** How the taps are read, and the one that comes next */
    aside: taken("The next tap"),
  },
  ask: {
    agent: { defaultValue: ({ known }) => houseAgent(known.context.house) },
    series: {
      needed: ({ value }) => {
        const taps = value("taps") as readonly ProbeTap[];
        return taps.length > 0 && !taps.every((t) => t.typed)
          ? "Import the log of these taps, or type what you saw at each."
          : undefined;
      },
    },
  },
  computed: {
    // A log that has the loop says it itself.
    closedLoop: ({ closedLoop, series, taps = [] }) => {
      if (closedLoop !== undefined) return closedLoop;
      const logged = series?.loop !== undefined && !taps.some((t) => t.typed);
      return logged ? series?.loop?.every((closed) => closed !== 0) : undefined;
    },
  },
});

interface Spots {
  readonly spots: readonly Joint[];
  /** Which trim this device's scan tool showed last */
  readonly shows?: "short" | "total" | undefined;
}

const spot = {
  among: ({ known }: { readonly known: Spots }) => known.spots,
  defaultValue: ({ known }: { readonly known: Spots }) => known.spots[0]?.id,
};
const trimLabel = (when: "before" | "after") => ({
  label: ({ value }: { readonly value: (name: "typed.shows") => unknown }) =>
    `${value("typed.shows") === "short" ? "Short-term" : "Total"} trim ${when}, %`,
  needed: () => `Type the trim ${when}`,
});

/** Response at one spot, read by eye. */
export const probeTapForm = formOf<Spots>()(probeTapFields, {
  only: ["joint", "typed.shows", "typed.trimBefore", "typed.trimAfter", "typed.rpmBefore", "typed.rpmAfter"],
  ask: {
    joint: spot,
    "typed.shows": {
      defaultValue: ({ known }) => known.shows,
      hint: ({ known, value }) => (known.shows && value("typed.shows") === known.shows ? "As last time" : undefined),
    },
    "typed.trimBefore": trimLabel("before"),
    "typed.trimAfter": trimLabel("after"),
    "typed.rpmBefore": { needed: () => "Type the speed before" },
    "typed.rpmAfter": { needed: () => "Type the speed after" },
  },
});

/** A tap added afterwards, by its time on the log's clock. */
export const timedTapForm = formOf<Spots>()(probeTapFields, {
  only: ["joint", "at"],
  ask: { joint: spot, at: { needed: () => "Type the time in seconds on the log's clock" } },
});
