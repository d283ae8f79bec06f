"use client";

import { PlugZap, Unplug } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import type { RecordSource } from "@/core/checks/fields";
import { type ProbeSeries, type ProbeTap, probeSeries } from "@/core/checks/probe";
import type { LiveRow } from "@/core/devices/device";
import { LiveLog } from "@/core/devices/live-log";
import { type StandInEngine, standInEngine } from "@/core/devices/stand-in-engine";
import { fromSi, toSi } from "@/core/units";
import type { Joint } from "@/core/vehicle";
import { Button } from "@/ui/button";
import { bayEngine } from "../../../practice/live";
import { usePreferences } from "../../../session/preferences";
import { useBay } from "../../practice/use-bay";
import { useJob } from "../../use-job";
import { every } from "../every";

/** The log around the taps is cut anew after so much of the stream, s. */
const LOOKS = 1;
/** How large a hole the stand-in hides, m. */
const HOLES = [1.6e-3, 2.6e-3] as const;

interface Live {
  readonly tool: StandInEngine;
  /** Where the stand-in's hole is: told once it is unplugged */
  readonly hidden?: Joint;
}

/**
 * A scan tool read live beside the taps: each is marked on the stream as it is made, and read against it. What the shop has here is a
 * stand-in with a hole at one of the spots; in a practice bay it is the car itself.
 */
export function useLiveProbe(
  joints: readonly Joint[],
  taps: readonly ProbeTap[],
  onSeries: (series: ProbeSeries | undefined, source: RecordSource) => void,
) {
  const { context, state, entries } = useJob();
  const bay = useBay();
  const [live, setLive] = useState<Live>();
  const [now, setNow] = useState<LiveRow>();
  const [said, setSaid] = useState<string>();
  const stop = useRef<() => void>(undefined);
  const latest = useRef({ taps, onSeries });
  latest.current = { taps, onSeries };
  useEffect(() => () => stop.current?.(), []);
  const total = context?.house.totalTrim ?? "product";

  const connect = () => {
    const hidden = joints[Math.floor(Math.random() * joints.length)];
    const truth = {
      displacement: context ? toSi(context.vehicle.displacement) : 1.6e-3,
      ambient: state.conditions ? toSi(state.conditions.ambient) : 101_325,
      temperature: state.conditions ? toSi(state.conditions.bayTemperature) : 293.15,
      hole: HOLES[0] + Math.random() * (HOLES[1] - HOLES[0]),
    };
    const tool = bay
      ? bayEngine(bay.code, entries, 1)
      : standInEngine(truth, Math.floor(Math.random() * 2 ** 31), every, 1, undefined, (joint) => joint === hidden?.id);
    const log = new LiveLog(tool.channels);
    const source: RecordSource = { kind: "device", device: tool.name, simulated: tool.simulated };
    let looked = 0;
    const cut = () => {
      const at = latest.current.taps.flatMap((t) => (t.at === undefined ? [] : [t.at]));
      if (at.length > 0) latest.current.onSeries(probeSeries(log.log, at, total), source);
    };
    stop.current = tool.start({
      row: (row) => {
        if (!log.push(row)) return;
        setNow(row);
        if (row.at - looked < LOOKS) return;
        looked = row.at;
        cut();
      },
      ended: (why) => setSaid(why),
    });
    setLive({ tool, ...(bay || !hidden ? {} : { hidden }) });
    setSaid(undefined);
  };
  const unplug = () => {
    stop.current?.();
    setSaid(`Unplugged. What came until then stays.${live?.hidden ? ` Its hole was at ${live.hidden.name}.` : ""}`);
    setLive(undefined);
    setNow(undefined);
  };
  return { live, now, said, bay: bay !== undefined, connect, unplug };
}

/** Plugs the tool in and out, and shows what it reads. */
export function LiveProbe({ probe, held }: { probe: ReturnType<typeof useLiveProbe>; held: boolean }) {
  const { number } = usePreferences();
  const { live, now, said, bay, connect, unplug } = probe;
  const read = (name: string, value: number | undefined, digits: number, unit: string) =>
    value === undefined ? null : (
      <div>
        <dt className="text-sm text-muted">{name}</dt>
        <dd className="font-mono text-2xl tabular-nums">
          {number(value, digits)} <span className="text-base text-muted">{unit}</span>
        </dd>
      </div>
    );
  return (
    <section aria-label="Scan tool, live" className="flex flex-col gap-3">
      <div className="flex flex-wrap items-center gap-4">
        {live ? (
          <Button onClick={unplug}>
            <Unplug aria-hidden size={18} /> Unplug
          </Button>
        ) : (
          <Button look="primary" disabled={held} onClick={connect}>
            <PlugZap aria-hidden size={18} />{" "}
            {bay ? "Plug it into the car: start the engine" : "Connect the stand-in: start the engine"}
          </Button>
        )}
        {live?.tool.simulated && (
          <p className="border-l-4 border-amber bg-amber-soft px-3 py-2">
            <strong className="text-amber">Simulated.</strong> {live.tool.name}
            {bay ? "." : ": what it says proves nothing of this car."}
          </p>
        )}
        {held && <p className="text-muted">Taps from a log or typed stand here: record or take them out first.</p>}
      </div>
      {live && now && (
        <dl className="grid grid-cols-2 gap-x-6 gap-y-2 sm:grid-cols-5">
          {read("Short-term, bank 1", now.values["short-trim-1"], 1, "%")}
          {read("Long-term, bank 1", now.values["long-trim-1"], 1, "%")}
          {read("Engine speed", now.values.rpm, 0, "1/min")}
          {read("Coolant", now.values.coolant === undefined ? undefined : fromSi(now.values.coolant, "°C").value, 0, "°C")}
          {read("Read", now.at, 0, "s")}
        </dl>
      )}
      {said && <p role="status">{said}</p>}
    </section>
  );
}
