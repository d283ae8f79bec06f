"use client";

import { PlugZap, Unplug } from "lucide-react";
import { useEffect, useState } from "react";
import type { RecordSource } from "@/core/checks/fields";
import type { TrimPoint } from "@/core/checks/trims";
import type { LiveRow, ScanTool } from "@/core/devices/device";
import { replayed } from "@/core/devices/replay";
import { type StandInEngine, standInEngine } from "@/core/devices/stand-in-engine";
import {
  type ChannelId,
  findSteadyWindows,
  type LoggedEngine,
  type Mapping,
  readHead,
  readScanLog,
  surveyPoints,
} from "@/core/scan-log";
import type { Limits } from "@/core/shop/settings";
import { fromSi } from "@/core/units";
import { Button } from "@/ui/button";
import { Choice } from "@/ui/choice";
import { ErrorNote } from "@/ui/field";
import { FileButton } from "@/ui/file-button";
import { Note } from "@/ui/note";
import { bayEngine } from "../../../practice/live";
import { getJson } from "../../../session/api";
import { usePreferences } from "../../../session/preferences";
import { useBay } from "../../practice/use-bay";
import { useJob } from "../../use-job";
import { every } from "../every";
import type { CheckInHand } from "../use-check-form";
import { useLiveTool } from "../use-live-tool";

/** A log that is played is read at once: longer ones are for the import, bytes. */
const LARGEST = 5 * 1024 * 1024;

/** Stand-in for a scan tool on a car. */
const STAND_INS = { engine: "A simulated engine", log: "A recorded log" } as const;
/** Fault of the simulated engine: told only once it is unplugged. */
const HIDES = { sound: "Sound", hole: "With a hole, nobody says how large" } as const;
/** m */
const HOLES = [1.3e-3, 2.8e-3] as const;
const FEET: readonly (readonly [string, string])[] = [
  ["", "Idle"],
  ["1500", "1500"],
  ["2500", "2500"],
];

const PACES = { "1": "By the clock", "10": "Ten times faster" } as const;

/** Values shown large while a tool is read: name, decimals, unit. */
const SHOWN: readonly (readonly [ChannelId, string, number, string])[] = [
  ["rpm", "Engine speed", 0, "rpm"],
  ["maf", "MAF", 1, "g/s"],
  ["short-trim-1", "Short-term, bank 1", 1, "%"],
  ["long-trim-1", "Long-term, bank 1", 1, "%"],
  ["short-trim-2", "Short-term, bank 2", 1, "%"],
  ["long-trim-2", "Long-term, bank 2", 1, "%"],
  ["coolant", "Coolant", 0, "°C"],
];

/** As a scan tool shows it. */
const shown = (channel: ChannelId, value: number): number =>
  channel === "maf" ? fromSi(value, "g/s").value : channel === "coolant" ? fromSi(value, "°C").value : value;

/**
 * A scan tool read live: steady windows become points of the survey as they come, and stay if it is unplugged. What the shop has
 * here are stand-ins, a simulated engine and a recorded log that is played; they are marked as simulated, and so is what is recorded.
 */
export function LiveSurvey({
  check,
  limits,
  engine,
  ambient = 101_325,
  temperature = 293.15,
  others,
  onReading,
  onPoints,
}: {
  /** Record that the points go into */
  check: Pick<CheckInHand, "startedAt" | "busy">;
  limits: Limits;
  engine: LoggedEngine;
  /** Of the bay, Pa absolute and K; standard where nobody set the conditions */
  ambient?: number | undefined;
  temperature?: number | undefined;
  /** Points that stand there from a hand or a log: what comes live would take their place */
  others: number;
  /** Whether a tool is plugged in */
  onReading: (reading: boolean) => void;
  onPoints: (points: readonly TrimPoint[], source: RecordSource) => void;
}) {
  const { number } = usePreferences();
  const bay = useBay();
  const { entries } = useJob();
  const [pace, setPace] = useState<keyof typeof PACES>("1");
  const [standIn, setStandIn] = useState<keyof typeof STAND_INS>("engine");
  const [hides, setHides] = useState<keyof typeof HIDES>("hole");
  const [car, setCar] = useState<{ readonly engine: StandInEngine; readonly hole: number | undefined }>();
  const [foot, setFoot] = useState("");
  const [said, setSaid] = useState<string>();
  const [error, setError] = useState<string>();
  const live = useLiveTool<ScanTool>(check, (log, source) => onPoints(surveyPoints(findSteadyWindows(log, limits)), source));
  const { tool, now, ended } = live;
  const reading = tool !== undefined;
  useEffect(() => {
    onReading(reading);
    return () => onReading(false);
  }, [reading, onReading]);
  const connect = (found: ScanTool) => {
    setSaid(undefined);
    live.connect(found);
  };
  const unplug = () => {
    live.unplug();
    const was =
      car?.hole !== undefined &&
      (car.hole > 0 ? ` It had a hole of ${number(1000 * car.hole, 1)} mm in its manifold.` : " It was sound.");
    setCar(undefined);
    setSaid(`Unplugged. What came until then stays.${was || ""}`);
  };
  /** Nothing that was typed or logged is lost to a stand-in. */
  const free = () => {
    setError(
      others > 0
        ? `${others === 1 ? "A point stands" : `${others} points stand`} here already, typed or from a log: record or discard them first`
        : undefined,
    );
    return others === 0;
  };
  const startEngine = () => {
    if (!free()) return;
    const hole = hides === "hole" ? HOLES[0] + Math.random() * (HOLES[1] - HOLES[0]) : 0;
    const truth = { displacement: engine.displacement ?? 1.6e-3, ambient, temperature, hole };
    const found = bay
      ? bayEngine(bay.code, entries, Number(pace))
      : standInEngine(truth, Math.floor(Math.random() * 2 ** 31), every, Number(pace));
    setFoot("");
    setCar({ engine: found, hole: bay ? undefined : hole });
    connect(found);
  };
  const play = async (file: File) => {
    if (!free()) return;
    if (file.size > LARGEST) return setError("A log that is played has at most 5 MB: read a longer one as a log");
    try {
      const bytes = new Uint8Array(await file.arrayBuffer());
      const { signature } = readHead(bytes, undefined, engine);
      const mapping = (await getJson<Mapping | null>(`mappings/${signature}`).catch(() => null)) ?? undefined;
      connect(replayed(readScanLog(bytes, mapping, engine), file.name, every, Number(pace)));
    } catch (e) {
      setError(`${(e as Error).message}. Read it as a log once: how its columns are understood is kept.`);
    }
  };
  return (
    <section aria-label="Scan tool, live" className="flex flex-col gap-4">
      <div className="flex flex-wrap items-end gap-4">
        {tool ? (
          <Button onClick={unplug}>
            <Unplug aria-hidden size={18} /> Unplug
          </Button>
        ) : (
          <>
            {!bay && (
              <Choice
                label="Stand-in"
                options={Object.entries(STAND_INS) as [keyof typeof STAND_INS, string][]}
                value={standIn}
                onChange={setStandIn}
              />
            )}
            <Choice
              label="Pace of the stand-in"
              options={Object.entries(PACES) as [keyof typeof PACES, string][]}
              value={pace}
              onChange={setPace}
            />
            {standIn === "engine" ? (
              <>
                {!bay && (
                  <Choice
                    label="The simulated engine is"
                    options={Object.entries(HIDES) as [keyof typeof HIDES, string][]}
                    value={hides}
                    onChange={setHides}
                  />
                )}
                <Button look="primary" onClick={startEngine}>
                  <PlugZap aria-hidden size={18} />{" "}
                  {bay ? "Plug it into the car: start the engine" : "Connect the stand-in: start the engine"}
                </Button>
              </>
            ) : (
              <FileButton
                label="Log to play as a live scan tool"
                accept=".csv,.txt,.tsv,.log,text/csv"
                look="primary"
                onFile={(f) => void play(f)}
              >
                <PlugZap aria-hidden size={18} /> Connect the stand-in: play a log
              </FileButton>
            )}
          </>
        )}
        {tool && car && (
          <Choice
            label="The foot holds, rpm"
            options={FEET}
            value={foot}
            onChange={(held) => {
              setFoot(held);
              car.engine.hold(held === "" ? undefined : Number(held));
            }}
          />
        )}
        {tool?.simulated && (
          <Note tone="amber" as="p" tight>
            <strong className="text-amber">Simulated.</strong> {tool.name}
            {bay ? "." : ": what it says proves nothing of this car."}
          </Note>
        )}
      </div>
      {now && !ended && <Showing now={now} />}
      {(said ?? ended) && <p role="status">{said ?? `${ended}. What came stays: record it, or unplug and play it again.`}</p>}
      {error && <ErrorNote>{error}</ErrorNote>}
    </section>
  );
}

/** Values the tool reads now, large. */
function Showing({ now }: { now: LiveRow }) {
  const { number } = usePreferences();
  return (
    <>
      <dl className="grid grid-cols-2 gap-x-6 gap-y-2 sm:grid-cols-4">
        {SHOWN.map(([channel, name, decimals, unit]) => {
          const value = now.values[channel];
          if (value === undefined) return null;
          return (
            <div key={channel}>
              <dt className="text-sm text-muted">{name}</dt>
              <dd className="font-mono text-2xl">
                {number(shown(channel, value), decimals)} <span className="text-base text-muted">{unit}</span>
              </dd>
            </div>
          );
        })}
      </dl>
      <p role="status" className="text-muted">
        {number(now.at, 0)} s read. Warm and in closed loop, hold each point for 5 s: it joins the survey by itself.
      </p>
    </>
  );
}
