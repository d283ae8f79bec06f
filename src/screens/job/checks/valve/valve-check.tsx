"use client";

import type { ReactNode } from "react";
import { judgeCheck } from "@/core/checks";
import { readState, type ValveRecord, valve } from "@/core/checks/valve";
import { valveForm } from "@/core/checks/valve/fields";
import { toSi } from "@/core/units";
import { Button } from "@/ui/button";
import { FormFields, RowFields } from "../../../form/form-field";
import { useJob } from "../../use-job";
import { CheckFrame } from "../check-frame";
import { type CheckInHand, useCheckForm } from "../use-check-form";

const STATES = [
  ["rest", "At rest"],
  ["energised", "Energised"],
] as const;

/** A valve in both its states, side by side: what was put on, what was left, and what that state did. */
export function ValveCheck({ head }: { head: ReactNode }) {
  const check = useCheckForm("valve", valveForm);
  const { context, value, record } = check;
  const rests = value<ValveRecord["rests"]>("rests");
  const did = (which: "rest" | "energised") => {
    const state = record?.[which];
    if (!record || !state) return undefined;
    const division = Math.abs(toSi(record.instrument.division) / toSi({ value: 1, unit: record.unit }));
    return readState(state, division, context.limits.holdLoss.value);
  };
  const plan = valve.plan(context, {
    joint: value("joint"),
    part: value<ValveRecord["part"]>("part"),
    power: value<ValveRecord["power"]>("power"),
    rests,
  });
  return (
    <CheckFrame check={check} head={head} plan={plan}>
      <div className="grid gap-6 md:grid-cols-2">
        {STATES.map(([which, name]) => {
          const must = (which === "rest") === (rests === "closed") ? "must hold" : "must pass";
          const word = did(which);
          return (
            <fieldset key={which} className="flex min-w-0 flex-col gap-3 border-l-4 border-edge pl-4">
              <legend className="sr-only">{name}</legend>
              <p className="text-xl">
                <strong>{name}</strong> <span className="text-muted">{must}</span>
                {word && (
                  <strong className={`ml-3 ${(word === "holds") === (must === "must hold") ? "text-calm" : "text-ember"}`}>
                    {word}
                  </strong>
                )}
              </p>
              <div className="grid grid-cols-3 items-end gap-3">
                <FormFields of={check} names={[`${which}.start`, `${which}.end`, `${which}.seconds`]} />
              </div>
            </fieldset>
          );
        })}
      </div>
      <div className="grid items-start gap-4 sm:grid-cols-2">
        <FormFields of={check} names={["joint", "part", "rests", "temperature"]} />
      </div>
      <FormFields of={check} names={["power", "unplugged"]} />
      <div className="grid items-start gap-4 sm:grid-cols-2">
        <FormFields of={check} names={["clicked", "vents"]} />
      </div>
      <FormFields of={check} names={["instrument"]} />
      <Cycles check={check} />
      <div className="max-w-md">
        <FormFields of={check} names={["volume"]} />
      </div>
      <OldAgainstNew joint={value("joint")} />
    </CheckFrame>
  );
}

/** Commanded again and again, cold and hot: one cycle misses the valve that sticks one time in ten. */
function Cycles({ check }: { check: CheckInHand<ValveRecord, keyof typeof valveForm.fields> }) {
  const cycles = check.value<readonly { readonly temperature: "cold" | "hot" }[] | undefined>("cycles") ?? [];
  const { cycles: field } = valveForm.fields;
  const left = (["cold", "hot"] as const).filter((t) => !cycles.some((c) => c.temperature === t));
  return (
    <div className="flex flex-col gap-3">
      {cycles.map(({ temperature }, at) => (
        <fieldset key={temperature} className="grid grid-cols-2 items-end gap-3 border-l-4 border-edge pl-4 sm:grid-cols-5">
          <legend className="font-bold">Commanded again and again, {temperature}</legend>
          <RowFields of={check} rows="cycles" index={at} names={["commanded", "shut", "passed", "released"]} />
          <Button look="bare" onClick={() => check.set({ cycles: cycles.filter((_, i) => i !== at) })}>
            Remove
          </Button>
        </fieldset>
      ))}
      <div className="flex flex-wrap gap-3">
        {left.map((temperature) => (
          <Button
            key={temperature}
            onClick={() => check.set({ cycles: [...cycles, { ...(field.type === "rows" ? field.blank : {}), temperature }] })}
          >
            Count cycles, {temperature}
          </Button>
        ))}
      </div>
    </div>
  );
}

/** The fitted part's last test beside the new one's: the new one passes on the bench before it is fitted. */
function OldAgainstNew({ joint }: { joint: string }) {
  const { state, context } = useJob();
  if (!context) return null;
  const tests = state.checks.filter((c) => c.check === "valve" && c.place === joint);
  const last = (bench: boolean) => tests.findLast((c) => c.onBench === bench);
  const [old, fresh] = [last(false), last(true)];
  if (!old && !fresh) return null;
  const said = (c: typeof old) => (c ? judgeCheck("valve", c.record, context).headline : "not tested yet");
  return (
    <dl className="grid gap-x-6 gap-y-1 sm:grid-cols-[auto_1fr]">
      <dt className="text-muted">Fitted part</dt>
      <dd>{said(old)}</dd>
      <dt className="text-muted">New part, on the bench</dt>
      <dd>{said(fresh)}</dd>
    </dl>
  );
}
