import { describe, expect, it } from "vitest";
import { contextOf, NATURAL, smokeRun, TWO_BANKS } from "../core.fixture";
import { foldJob } from "../journal";
import { NOW, SHOP, Writer } from "../journal/journal.fixture";
import type { CheckId } from ".";
import type { ChainRecord } from "./chain";
import { judgeCheck } from "./index";
import * as good from "./records.fixture";

const natural = contextOf(NATURAL);
const flaps = contextOf(TWO_BANKS);

/** Every trap that makes a check of this family void, each on a record that is good but for it. */
const TRAPS: readonly (readonly [string, CheckId, object, RegExp])[] = [
  ["machine never proved", "smoke", smokeRun(4.5, { proof: undefined }), /never proved/],
  [
    "machine proved below 85 % of its rated pressure",
    "smoke",
    smokeRun(4.5, { proof: { pressure: { value: 10, unit: "inH2O", kind: "gauge" }, ballAtBottom: true, smokeSeen: true } }),
    /77 % of its rated pressure/,
  ],
  ["heater timed out during the run", "smoke", smokeRun(4.5, { heaterOnAt: -250 }), /timed out/],
  [
    "flow fell to zero as the hose went on",
    "smoke",
    smokeRun(0, { samples: Array.from({ length: 10 }, (_, i): [number, number, number] => [1 + i, 0, 12.6]) }),
    /port is not open/,
  ],
  ["still filling", "smoke", smokeRun(4.5, { samples: smokeRun().samples.slice(0, 4) }), /still filling/],
  ["a port that should be blocked was open", "smoke", smokeRun(4.5, { blocked: [] }), /left open/],
  ["a command dropped out during the run", "smoke", smokeRun(4.5, { cameUndone: ["throttle"] }), /dropped out/],
  ["a blank that weeps", "smoke", smokeRun(4.5, { cameUndone: ["tailpipe"] }), /wept/],
  ["cap or clamp touched before the check", "smoke", smokeRun(4.5, { touchedBefore: ["oil-cap"] }), /touched before/],
  ["adapter leaking at its own threads", "smoke", smokeRun(4.5, { adapterLeaks: true }), /adapter leaked/],
  ["draught or bright daylight", "smoke", smokeRun(4.5, { draughtOrGlare: true }), /daylight/],
  ["open loop where closed is asked", "trims", good.survey({ closedLoop: false }), /open loop/],
  ["engine cold where warm is asked", "trims", good.survey({ coolant: { value: 40, unit: "°C" } }), /below 75 °C/],
  ["engine cold for a probe", "probe", { ...good.probe(), coolant: { value: 50, unit: "°C" } }, /not warm/],
  ["a tap too close to the last", "probe", good.probe({ taps: [1, 4] }), /after the tap before it|of log before it/],
  ["RPM moved by the driver", "probe", good.probe({ foot: true }), /driver did it/],
  ["a tap in open loop", "probe", good.probe({ openLoop: true }), /open loop/],
  ["the gauge's own port leaks", "vacuum", { ...good.vacuum, portSound: false }, /is the leak it shows/],
  ["gauge read on a cold engine", "vacuum", { ...good.vacuum, warm: false }, /cold/],
  ["airflow of a cold engine", "airflow", { ...good.airflow, warm: false }, /cold/],
  ["crankcase vented while it was read", "crankcase", { ...good.crankcase, sealed: false }, /vented/],
  ["crankcase of a cold engine", "crankcase", { ...good.crankcase, warm: false }, /cold/],
  [
    "a blank never proved, and no recovery",
    "pinch",
    { ...good.pinch, shut: 17, released: 17, blankProved: false },
    /prove it first/,
  ],
  [
    "hardly any vacuum on the part",
    "hold",
    {
      ...good.hold,
      still: [
        [0, 4],
        [60, 4],
      ],
    },
    /pump to/,
  ],
  ["12 V into a plugged part", "valve", { ...good.valve, power: "12v", unplugged: false }, /fed back/],
  ["the command had dropped out", "output", { ...good.output, seenAfter: 40 }, /timed out/],
  ["the tool was not re-armed", "output", { ...good.output, rearmed: false }, /re-armed/],
  ["live only with the engine running", "circuit", { ...good.circuit, engineRunning: false }, /engine running/],
];

describe("void traps", () => {
  it.each(TRAPS)("%s", (_name, check, record, reason) => {
    const verdict = judgeCheck(check, record, natural);
    expect(verdict.outcome).toBe("void");
    expect([verdict.headline, ...verdict.reasons].join(" ")).toMatch(reason);
    expect(verdict.observation).toBeUndefined();
    expect(verdict.zones).toEqual([]);
  });

  it("do not catch the good records they were made from", () => {
    const records: [CheckId, object][] = [
      ["smoke", smokeRun()],
      ["trims", good.survey({})],
      ["probe", good.probe()],
      ["vacuum", good.vacuum],
      ["airflow", good.airflow],
      ["crankcase", good.crankcase],
      ["pinch", good.pinch],
      ["hold", good.hold],
      ["valve", good.valve],
      ["output", good.output],
      ["circuit", good.circuit],
    ];
    for (const [check, record] of records) expect(judgeCheck(check, record, natural).outcome, check).not.toBe("void");
  });

  it("a far zone never shown to receive smoke is untested, not tight", () => {
    const verdict = judgeCheck("smoke", smokeRun(4.5, { arrivals: [] }), natural);
    expect(verdict.zones.find((z) => z.zone === "manifold")).toMatchObject({ state: "not-reached" });
    expect(verdict.headline).toMatch(/Tight as far as smoke was shown/);
  });

  it.each<[string, CheckId, object]>([
    ["vacuum", "vacuum", { ...good.vacuum, instrument: good.gauge({ zero: 1.5 }) }],
    ["crankcase", "crankcase", { ...good.crankcase, instrument: { ...good.gauge({}), division: { value: 5, unit: "hPa" } } }],
    ["hold", "hold", { ...good.hold, instrument: good.gauge({ division: 1 }) }],
    ["valve", "valve", { ...good.valve, instrument: good.gauge({ zero: 2 }) }],
    ["circuit", "circuit", { ...good.circuit, instrument: good.meter({ division: 0.5 }) }],
    ["chain", "chain", { ...good.chain, instrument: good.gauge({ zero: 3 }) }],
  ])("an instrument off zero or too coarse leaves a %s reading not sure yet", (_name, check, record) => {
    const verdict = judgeCheck(check, record, check === "chain" ? flaps : natural);
    expect(verdict.outcome).toBe("unsure");
    expect(verdict.reasons.join()).toMatch(/zero it|too coarse|60 s or longer/);
  });

  it("a command that still stands makes whatever is read beside it void", () => {
    const job = new Writer();
    job.add("opened", { number: 1 });
    job.add("vehicle", NATURAL);
    const command = job.add("displaced", { what: "Purge valve commanded", joint: "purge-valve", commanded: { seconds: 30 } });
    const beside = job.add("check", { check: "vacuum", record: good.vacuum });
    const own = job.add("check", { check: "valve", record: { ...good.valve, joint: "purge-valve" } });
    job.add("restored", { item: command });
    const after = job.add("check", { check: "vacuum", record: { ...good.vacuum } });
    const verdictOf = (entry: string) => foldJob(job.entries, SHOP, NOW).checks.find((c) => c.entry === entry)?.verdict;
    expect(verdictOf(beside)).toMatchObject({
      outcome: "void",
      reasons: [expect.stringMatching(/Purge valve commanded was still/)],
    });
    expect(verdictOf(own)?.outcome).not.toBe("void");
    expect(verdictOf(after)?.outcome).not.toBe("void");
  });

  it("a chain stops at its first broken link and judges nothing beyond it", () => {
    const broken: ChainRecord = { ...good.chain, links: { ...good.chain.links, control: { value: 0.1, unit: "V" } } };
    const verdict = judgeCheck("chain", broken, flaps);
    expect(verdict).toMatchObject({ outcome: "fail", observation: "chain-broken:flap-circuit" });
    expect(verdict.reasons.join()).toMatch(/not judged, because they lie beyond it/);
  });
});
