"use client";

import { Trash2 } from "lucide-react";
import type { ReactNode } from "react";
import { BOOST_EXTRACTOR, type BoostPointRead, type BoostRecord, boost } from "@/core/checks/boost";
import { boostForm, boostPointForm } from "@/core/checks/boost/fields";
import { loggedEngine } from "@/core/scan-log";
import { type Quantity, toSi } from "@/core/units";
import { Button, IconButton } from "@/ui/button";
import { DividedList } from "@/ui/divided-list";
import { Form } from "@/ui/form";
import { Note } from "@/ui/note";
import type { ImportedLog } from "@/workers/scan-log.worker";
import { FormFields } from "../../../form/form-field";
import { useTypedForm } from "../../../form/use-typed-form";
import { usePreferences } from "../../../session/preferences";
import { SetConditions } from "../../conditions";
import { useJob } from "../../use-job";
import { CheckFrame } from "../check-frame";
import { LogTake } from "../scan-log/log-take";
import { useScanLog, warmth } from "../scan-log/use-scan-log";
import { useCheckForm } from "../use-check-form";
import { BoostPlot } from "./boost-plot";
import { FlowPlot } from "./flow-plot";

const STANDING = ["keyOn.ambient", "keyOn.map", "keyOn.charge", "keyOn.exhaust", "keyOn.filter"] as const;
const NOT_STANDING = Object.fromEntries(STANDING.map((name) => [name, ""]));

/** Boost asked for against delivered, from a log or typed; what the air meter makes of it is said below. */
export function BoostCheck({ head }: { head: ReactNode }) {
  const check = useCheckForm("boost", boostForm);
  const { context, value, known, set, fill } = check;
  const scan = useScanLog(context.limits, loggedEngine(context.vehicle));
  const reads = value<"typed" | "log">("reads");
  const points = value<readonly BoostPointRead[] | undefined>("points") ?? [];
  const take = async (file: File, log: ImportedLog) => {
    if (!known.ambient) return undefined;
    const found = await scan.extract("boost", toSi(known.ambient));
    if (!found)
      return "No steady moment was found: log engine speed, manifold or charge pressure, and the charge air's temperature.";
    set({ short: undefined, over: undefined, hunts: undefined, limp: undefined, ...NOT_STANDING });
    fill({ ...found, ...warmth(log), source: { kind: "log", file: file.name, sha256: log.sha256, extractor: BOOST_EXTRACTOR } });
    return undefined;
  };
  const source = <FormFields of={check} names={["reads"]} />;
  const limp = value<BoostRecord["limp"]>("limp");
  return (
    <CheckFrame check={check} head={head} plan={boost.plan(context, undefined)} at="compressor" onDone={scan.cancel}>
      {!known.ambient && <SetConditions why="Boost needs the ambient pressure." />}
      {reads === "log" ? (
        <LogTake scan={scan} take={take} beside={source} ready={known.ambient !== undefined} />
      ) : (
        <>
          <div>{source}</div>
          <PointForm onAdd={(p) => set({ points: [...points, p], source: { kind: "typed" } })} />
        </>
      )}
      {limp && <Limp limp={limp} />}
      {points.length > 0 && known.ambient && <BoostPlot record={{ points, ambient: known.ambient }} />}
      {check.record && <FlowPlot record={check.record} />}
      {reads === "typed" && points.length > 0 && (
        <PointList points={points} remove={(i) => set({ points: points.filter((_, k) => k !== i) })} />
      )}
      <div className="grid items-start gap-4 sm:grid-cols-2">
        <FormFields of={check} names={["egr", "warm", "ownEfficiency"]} />
      </div>
      <section aria-label="Key on, engine standing" className="flex flex-col gap-2">
        <p className="text-muted">Key on, engine standing: every sensor shows the air outside, the one that differs is off.</p>
        <div className="grid items-start gap-4 sm:grid-cols-3">
          <FormFields of={check} names={STANDING} />
        </div>
      </section>
    </CheckFrame>
  );
}

/** When boost was no longer asked for: from there on the log says nothing of it. */
function Limp({ limp: { at, after } }: { limp: NonNullable<BoostRecord["limp"]> }) {
  const { format, number } = usePreferences();
  return (
    <Note tone="amber" as="p" tight>
      <strong className="text-amber">Limp mode</strong> set in {number(at, 0)} s into the log
      {after && `, after ${format(after)}`}. What comes after it says nothing of boost.
    </Note>
  );
}

/** One moment, typed. */
function PointForm({ onAdd }: { onAdd: (point: BoostPointRead) => void }) {
  const { id, context } = useJob();
  const form = useTypedForm(boostPointForm, `pelota.draft.${id}.boost-point`, { metered: context?.vehicle.metering === "maf" });
  const add = () => {
    const { record } = form.now();
    if (!record) return form.complain();
    onAdd(record);
    form.clear();
  };
  return (
    <Form className="flex flex-col gap-3" onSubmit={() => void add()}>
      <div className="grid items-start gap-4 sm:grid-cols-3">
        <FormFields of={form} names={["rpm", "charge", "map", "asked", "maf", "chargeTemperature"]} />
      </div>
      <div>
        <Button type="submit">Take this point</Button>
      </div>
    </Form>
  );
}

/** Typed points, each to be taken out again. */
function PointList({ points, remove }: { points: readonly BoostPointRead[]; remove: (i: number) => void }) {
  const { format, number } = usePreferences();
  const shown = (q: Quantity | undefined) => (q ? format({ ...q, kind: "absolute" }) : "–");
  return (
    <DividedList aria-label="Points">
      {points.map((p, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a point keeps its place in the row, readings may repeat
        <li key={i} className="flex items-center gap-4 py-1">
          <span className="mr-auto">
            {number(p.rpm, 0)} rpm: {shown(p.charge ?? p.map)}, asked {shown(p.asked)}
            {p.maf && `, ${format(p.maf)}`}
          </span>
          <IconButton label={`Take point ${i + 1} out`} onClick={() => remove(i)}>
            <Trash2 aria-hidden size={18} />
          </IconButton>
        </li>
      ))}
    </DividedList>
  );
}
