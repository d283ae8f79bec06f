"use client";

import { type ReactNode, useMemo } from "react";
import { pulldown, readPulldown } from "@/core/checks/pulldown";
import { pulldownForm } from "@/core/checks/pulldown/fields";
import { takenSamples } from "@/core/checks/samples";
import { fromSi, parseBare, type UnitId } from "@/core/units";
import { Button } from "@/ui/button";
import { FormFields } from "../../../form/form-field";
import { CheckFrame } from "../check-frame";
import { MustBeCaught } from "../must-be-caught";
import { SamplesField } from "../samples";
import { useCheckForm } from "../use-check-form";
import { TracePlot } from "./trace-plot";

const MARKS = [
  ["ventShutAt", "Vent shut"],
  ["purgeOpenAt", "Purge open"],
  ["purgeShutAt", "Purge shut"],
  ["ventOpenAt", "Vent open again"],
] as const;
const PART_WORDS = { good: "good", bad: "bad", unsure: "not sure yet" } as const;
const PART_INKS = { good: "text-calm", bad: "text-ember", unsure: "text-amber" } as const;

/** Tank pressure through vent shut, purge open, purge shut, vent open: three verdicts from one trace. */
export function PulldownCheck({ head }: { head: ReactNode }) {
  const check = useCheckForm("pulldown", pulldownForm);
  const { context, value, set, record } = check;
  const unit = value<UnitId>("unit");
  const trace = takenSamples(value("trace"));
  const read = useMemo(() => record && readPulldown(record, context), [record, context]);
  const level = parseBare(value<string | undefined>("fuelLevel") ?? "");
  const marks = Object.fromEntries(
    MARKS.flatMap(([name]) => {
      const at = parseBare(value<string | undefined>(name) ?? "");
      return at === undefined ? [] : [[name, at] as const];
    }),
  );
  const zero = trace.startedAt;
  const next = MARKS.find(([name]) => !value(name));
  const plan = pulldown.plan(context, {
    vent: value<"plug" | "command">("vent.by"),
    ...(level === undefined ? {} : { fuelLevel: level }),
  });
  return (
    <CheckFrame check={check} head={head} plan={plan} at="purge-valve">
      {trace.samples.length > 1 && (
        <TracePlot
          samples={trace.samples}
          phases={marks}
          unit={unit}
          deep={fromSi(context.limits.evapPullDown.value, unit).value}
        />
      )}
      {read && (
        <dl className="grid grid-cols-3 divide-x divide-line border-y border-line">
          {(
            [
              ["Pull-down", read.pullDown],
              ["Hold", read.hold],
              ["Relief", read.relief],
            ] as const
          ).map(([name, word]) => (
            <div key={name} className="px-3 py-2">
              <dt className="text-sm text-muted">{name}</dt>
              <dd className={`text-xl font-bold ${PART_INKS[word]}`}>{PART_WORDS[word]}</dd>
            </div>
          ))}
        </dl>
      )}
      <SamplesField
        label="Tank pressure"
        draft={trace}
        onChange={(change) => set({ trace: { ...trace, ...change } })}
        unit={unit}
        kind="gauge, below ambient negative"
        start="Recording begins"
      />
      {trace.mode === "live" && zero !== null && next && (
        <div>
          <Button look="primary" onClick={() => set({ [next[0]]: String(Math.round((Date.now() - zero) / 100) / 10) })}>
            Now: {next[1].toLowerCase()}
          </Button>
        </div>
      )}
      <div className="grid items-start gap-4 sm:grid-cols-4">
        <FormFields of={check} names={["ventShutAt", "purgeOpenAt", "purgeShutAt", "ventOpenAt"]} />
      </div>
      <FormFields of={check} names={["idled"]} />
      <MustBeCaught />
      <div className="grid items-start gap-4 sm:grid-cols-2">
        <FormFields of={check} names={["vent.by", "fuelLevel", "vent.seconds", "unit"]} />
      </div>
    </CheckFrame>
  );
}
