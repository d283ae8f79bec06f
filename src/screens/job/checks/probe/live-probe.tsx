"use client";

import { PlugZap, Unplug } from "lucide-react";
import { useState } from "react";
import type { RecordSource } from "@/core/checks/fields";
import { type ProbeSeries, type ProbeTap, probeSeries } from "@/core/checks/probe";
import { type StandInEngine, standInEngine } from "@/core/devices/stand-in-engine";
import { fromSi, toSi } from "@/core/units";
import type { Joint } from "@/core/vehicle";
import { Button } from "@/ui/button";
import { Note } from "@/ui/note";
import { bayEngine } from "../../../practice/live";
import { usePreferences } from "../../../session/preferences";
import { useBay } from "../../practice/use-bay";
import { useJob } from "../../use-job";
import { every } from "../every";
import type { CheckInHand } from "../use-check-form";
import { useLiveTool } from "../use-live-tool";

/** How large a hole the stand-in hides, m. */
const HOLES = [1.6e-3, 2.6e-3] as const;

/**
 * A scan tool read live beside the taps: each is marked on the stream as it is made, and read against it. What the shop has here is a
 * stand-in with a hole at one of the spots; in a practice bay it is the car itself.
 */
export function useLiveProbe(
  check: Pick<CheckInHand, "startedAt" | "busy" | "context">,
  joints: readonly Joint[],
  taps: readonly ProbeTap[],
  onSeries: (series: ProbeSeries | undefined, source: RecordSource) => void,
) {
  const { state, entries } = useJob();
  const bay = useBay();
  /** Where the stand-in's hole is: told once it is unplugged */
  const [hidden, setHidden] = useState<Joint>();
  const [said, setSaid] = useState<string>();
  const { vehicle, house } = check.context;
  const { tool, now, connect, unplug } = useLiveTool<StandInEngine>(check, (log, source) => {
    const at = taps.flatMap((t) => (t.at === undefined ? [] : [t.at]));
    if (at.length > 0) onSeries(probeSeries(log, at, house.totalTrim), source);
  });
  return {
    tool,
    now,
    said,
    bay: bay !== undefined,
    connect: () => {
      const spot = joints[Math.floor(Math.random() * joints.length)];
      const truth = {
        displacement: toSi(vehicle.displacement),
        ambient: state.conditions ? toSi(state.conditions.ambient) : 101_325,
        temperature: state.conditions ? toSi(state.conditions.bayTemperature) : 293.15,
        hole: HOLES[0] + Math.random() * (HOLES[1] - HOLES[0]),
      };
      setHidden(bay ? undefined : spot);
      setSaid(undefined);
      connect(
        bay
          ? bayEngine(bay.code, entries, 1)
          : standInEngine(truth, Math.floor(Math.random() * 2 ** 31), every, 1, undefined, (joint) => joint === spot?.id),
      );
    },
    unplug: () => {
      unplug();
      setSaid(`Unplugged. What came until then stays.${hidden ? ` Its hole was at ${hidden.name}.` : ""}`);
    },
  };
}

/** Plugs the tool in and out, and shows what it reads. */
export function LiveProbe({ probe, held }: { probe: ReturnType<typeof useLiveProbe>; held: boolean }) {
  const { number } = usePreferences();
  const { tool, now, said, bay, connect, unplug } = probe;
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
        {tool ? (
          <Button onClick={unplug}>
            <Unplug aria-hidden size={18} /> Unplug
          </Button>
        ) : (
          <Button look="primary" disabled={held} onClick={connect}>
            <PlugZap aria-hidden size={18} />{" "}
            {bay ? "Plug it into the car: start the engine" : "Connect the stand-in: start the engine"}
          </Button>
        )}
        {tool?.simulated && (
          <Note tone="amber" as="p" tight>
            <strong className="text-amber">Simulated.</strong> {tool.name}
            {bay ? "." : ": what it says proves nothing of this car."}
          </Note>
        )}
        {held && <p className="text-muted">Taps from a log or typed stand here: record or take them out first.</p>}
      </div>
      {tool && now && (
        <dl className="grid grid-cols-2 gap-x-6 gap-y-2 sm:grid-cols-5">
          {read("Short-term, bank 1", now.values["short-trim-1"], 1, "%")}
          {read("Long-term, bank 1", now.values["long-trim-1"], 1, "%")}
          {read("Engine speed", now.values.rpm, 0, "rpm")}
          {read("Coolant", now.values.coolant === undefined ? undefined : fromSi(now.values.coolant, "°C").value, 0, "°C")}
          {read("Read", now.at, 0, "s")}
        </dl>
      )}
      {said && <p role="status">{said}</p>}
    </section>
  );
}
