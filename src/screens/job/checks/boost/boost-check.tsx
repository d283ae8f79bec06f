"use client";

import { Trash2 } from "lucide-react";
import { type ReactNode, useState } from "react";
import { BOOST_EXTRACTOR, type BoostPointRead, type BoostRecord, boost } from "@/core/checks/boost";
import { boostForm, boostPointForm } from "@/core/checks/boost/form";
import { loggedEngine, type Mapping } from "@/core/scan-log";
import { type Quantity, toSi } from "@/core/units";
import { Button, IconButton } from "@/ui/button";
import { Choice } from "@/ui/choice";
import { ErrorNote } from "@/ui/field";
import type { ImportedLog } from "@/workers/scan-log.worker";
import { FormFields } from "../../../form/form-field";
import { useTypedForm } from "../../../form/use-typed-form";
import { usePreferences } from "../../../session/preferences";
import { useJob } from "../../use-job";
import { CheckFrame } from "../check-frame";
import { LogImport, LogPicker } from "../scan-log/log-import";
import { useKeptLog } from "../scan-log/use-kept-log";
import { useScanLog } from "../scan-log/use-scan-log";
import { useCheckForm } from "../use-check-form";
import { BoostPlot } from "./boost-plot";

/** Boost asked for against delivered, from a log or typed; what the air meter makes of it is said below. */
export function BoostCheck({ head }: { head: ReactNode }) {
  const check = useCheckForm("boost", boostForm);
  const { context, holds, known, set } = check;
  const scan = useScanLog(context.limits, loggedEngine(context.vehicle));
  const [mapping, setMapping] = useState<Mapping>();
  const [error, setError] = useState<string>();
  const keep = useKeptLog(setError);
  const reads = holds<"typed" | "log" | undefined>("reads") ?? "log";
  const points = holds<readonly BoostPointRead[] | undefined>("points") ?? [];
  const onRead = async (file: File, log: ImportedLog) => {
    if (!known.ambient) return setError("Set the conditions first (top right): boost is held against the air outside.");
    const found = await scan.boost(toSi(known.ambient));
    if (!found) {
      setError("No steady moment was found: log engine speed, manifold or charge pressure, and the charge air's temperature.");
      return;
    }
    setError(undefined);
    const none = { keyOn: undefined, short: undefined, over: undefined, hunts: undefined, limp: undefined };
    set({ ...none, ...found, source: { kind: "log", file: file.name, sha256: log.sha256, extractor: BOOST_EXTRACTOR } });
    keep(file);
  };
  const limp = holds<BoostRecord["limp"]>("limp");
  return (
    <CheckFrame check={check} head={head} plan={boost.plan(context, undefined)} at="compressor" onDone={scan.cancel}>
      <div className="flex flex-wrap items-end gap-4">
        <Choice
          label="Where the points come from"
          options={[
            ["log", "From a log"],
            ["typed", "Typed by hand"],
          ]}
          value={reads}
          onChange={(how) => set({ reads: how })}
        />
        {reads === "log" && <LogPicker scan={scan} onLook={setMapping} />}
      </div>
      {reads === "log" ? (
        <LogImport scan={scan} mapping={mapping} onMapping={setMapping} onRead={(f, l) => void onRead(f, l)} />
      ) : (
        <PointForm onAdd={(p) => set({ points: [...points, p], source: { kind: "typed" } })} />
      )}
      {error && <ErrorNote>{error}</ErrorNote>}
      {limp && <Limp limp={limp} />}
      {points.length > 0 && known.ambient && <BoostPlot record={{ points, ambient: known.ambient }} />}
      {reads === "typed" && points.length > 0 && (
        <PointList points={points} remove={(i) => set({ points: points.filter((_, k) => k !== i) })} />
      )}
      <div className="grid items-start gap-4 sm:grid-cols-2">
        <FormFields of={check} names={["egr", "warm"]} />
      </div>
    </CheckFrame>
  );
}

/** When boost was no longer asked for: from there on the log says nothing of it. */
function Limp({ limp: { at, after } }: { limp: NonNullable<BoostRecord["limp"]> }) {
  const { format, number } = usePreferences();
  return (
    <p className="border-l-4 border-amber bg-amber-soft px-4 py-2">
      <strong className="text-amber">Limp mode</strong> set in {number(at, 0)} s into the log
      {after && `, after ${format(after)}`}. What comes after it says nothing of boost.
    </p>
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
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        void add();
      }}
    >
      <div className="grid items-start gap-4 sm:grid-cols-3">
        <FormFields of={form} names={["rpm", "charge", "map", "asked", "maf", "chargeTemperature"]} />
      </div>
      <div>
        <Button type="submit">Take this point</Button>
      </div>
    </form>
  );
}

/** Typed points, each to be taken out again. */
function PointList({ points, remove }: { points: readonly BoostPointRead[]; remove: (i: number) => void }) {
  const { format, number } = usePreferences();
  const shown = (q: Quantity | undefined) => (q ? format({ ...q, kind: "absolute" }) : "–");
  return (
    <ul aria-label="Points" className="flex flex-col divide-y divide-line border-y border-line">
      {points.map((p, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a point keeps its place in the row, readings may repeat
        <li key={i} className="flex items-center gap-4 py-1">
          <span className="mr-auto">
            {number(p.rpm, 0)} 1/min: {shown(p.charge ?? p.map)}, asked {shown(p.asked)}
            {p.maf && `, ${format(p.maf)}`}
          </span>
          <IconButton label={`Take point ${i + 1} out`} onClick={() => remove(i)}>
            <Trash2 aria-hidden size={18} />
          </IconButton>
        </li>
      ))}
    </ul>
  );
}
