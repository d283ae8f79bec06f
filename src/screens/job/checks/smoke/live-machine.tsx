"use client";

import { Eye, PlugZap, Unplug } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { sampled, sighted } from "@/core/checks/smoke";
import { standInSmoke } from "@/core/devices/stand-in-smoke";
import { SmokeFill } from "@/core/practice/smoke-fill";
import { toSi, UNITS } from "@/core/units";
import { Button } from "@/ui/button";
import { ErrorNote } from "@/ui/field";
import { Note } from "@/ui/note";
import { type BaySmoke, baySmoke } from "../../../practice/live";
import { usePreferences } from "../../../session/preferences";
import { useBay } from "../../practice/use-bay";
import { useJob } from "../../use-job";
import { every } from "../every";
import type { SmokeHandle } from "./use-smoke-run";

/** How large a hidden hole may be, m. */
const HOLES = [0.8e-3, 2.4e-3] as const;

/**
 * Ball and gauge from a machine that is read live: what the shop has here is a stand-in on a simulated car with a hole somewhere within
 * reach. Marked as simulated, and so is the run: it proves nothing of this car.
 */
export function LiveMachine({ run }: { run: SmokeHandle }) {
  const { layout, state, entries } = useJob();
  const bay = useBay();
  const { number } = usePreferences();
  const { draft, update, machine, fill, reach, units } = run;
  const [hole, setHole] = useState<{ readonly joint: string; readonly name: string; readonly diameter: number }>();
  const [live, setLive] = useState(false);
  const [error, setError] = useState<string>();
  const stop = useRef<() => void>(undefined);
  /** The eyes at a practice car, while its machine is read */
  const [eyes, setEyes] = useState<BaySmoke>();
  const [seen, setSeen] = useState<string>();
  const running = draft.startedAt !== null && draft.endedAt === null;
  const unplug = () => {
    stop.current?.();
    setLive(false);
  };
  useEffect(() => () => stop.current?.(), []);
  // A run that has ended is read no further.
  useEffect(() => {
    if (running) return;
    stop.current?.();
    setLive(false);
  }, [running]);
  if (!layout || !reach || !state.conditions) return null;
  const { conditions } = state;
  const connect = () => {
    const places = reach.tested.filter((j) => j.to === "outside");
    const place = places[Math.floor(Math.random() * places.length)];
    const diameter = HOLES[0] + Math.random() * (HOLES[1] - HOLES[0]);
    try {
      const push = { ratedPressure: toSi(machine.ratedPressure), maxFlow: toSi(machine.maxFlow) };
      const air = { ambient: toSi(conditions.ambient), temperature: toSi(conditions.bayTemperature) };
      const holes = place ? [{ joint: place.id, diameter }] : [];
      // In a practice bay the car itself is read, in its own thread.
      const own = bay && baySmoke(bay.code, entries, fill, push);
      setEyes(own);
      setSeen(undefined);
      const tool = own ?? standInSmoke(new SmokeFill(layout, fill, push, holes, air, Math.floor(Math.random() * 2 ** 31)), every);
      update((d) => ({ ...d, source: { kind: "device", device: tool.name, simulated: tool.simulated } }));
      stop.current = tool.start(({ flow, pressure }) => {
        const shown = (si: number, unit: keyof typeof UNITS, digits: number) => Number((si / UNITS[unit].scale).toFixed(digits));
        update((d) => sampled(d, shown(flow, units.flow, 1), shown(pressure, units.pressure, 2), Date.now()));
      });
      if (place && !bay) setHole({ joint: place.id, name: place.name, diameter });
      setLive(true);
      setError(undefined);
    } catch (e) {
      setError((e as Error).message);
    }
  };
  const look = async () => {
    const joints = (await eyes?.look()) ?? [];
    const now = Date.now();
    update((d) => joints.reduce((run, joint) => sighted(run, joint, now), d));
    const names = joints.map((id) => layout.joints.find((j) => j.id === id)?.name ?? id);
    setSeen(names.length > 0 ? `Smoke: ${names.join(", ")}` : "No smoke to be seen just now, in this light");
  };
  const simulated = draft.source?.kind === "device" && draft.source.simulated;
  // A run that a hand has read from stays what it is.
  if (!simulated && (!running || draft.samples.length > 0)) return null;
  return (
    <section aria-label="Machine, live" className="flex flex-wrap items-center gap-3">
      {running &&
        (live ? (
          <Button onClick={unplug}>
            <Unplug aria-hidden size={18} /> Unplug
          </Button>
        ) : (
          <Button onClick={connect}>
            <PlugZap aria-hidden size={18} /> {bay ? "Connect it to the car" : "Connect the stand-in machine"}
          </Button>
        ))}
      {live && eyes && (
        <Button onClick={() => void look()}>
          <Eye aria-hidden size={18} /> Look along the joints
        </Button>
      )}
      {live && seen && <p role="status">{seen}</p>}
      {simulated && (
        <Note tone="amber" as="p" tight>
          <strong className="text-amber">Simulated.</strong> {!bay && "This run proves nothing of this car."}
          {!live && hole && ` It had a hole of ${number(1000 * hole.diameter, 1)} mm: ${hole.name}.`}
        </Note>
      )}
      {error && <ErrorNote>{error}</ErrorNote>}
    </section>
  );
}
