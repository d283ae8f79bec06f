"use client";

import { Plus, Trash2 } from "lucide-react";
import { type ReactNode, useState } from "react";
import { isAbove, pressureTest, testStage } from "@/core/checks/pressure-test";
import { pressureTestForm, setupIn } from "@/core/checks/pressure-test/fields";
import { type Draft, rowsOf } from "@/core/form";
import { fromSi, parseTrusted, toSi } from "@/core/units";
import { Button, IconButton } from "@/ui/button";
import { Dial } from "@/ui/dial";
import { DividedList } from "@/ui/divided-list";
import { FormFields, RowFields } from "../../../form/form-field";
import { usePreferences } from "../../../session/preferences";
import { CheckFrame } from "../check-frame";
import { type CheckInHand, useCheckForm } from "../use-check-form";

type Check = CheckInHand<object, keyof typeof pressureTestForm.fields>;

/** Air at boost pressure: the test gauge with the stage it must not pass, the stops on the way up, what came out where. */
export function PressureTestCheck({ head }: { head: ReactNode }) {
  const { format } = usePreferences();
  const check: Check = useCheckForm("pressure-test", pressureTestForm);
  const { context, formState, value, set } = check;
  const setup = setupIn(formState);
  const bar = (name: Parameters<typeof value>[0]) => parseTrusted(value<string | undefined>(name) ?? "", "testPressure", "bar");
  const maxBoost = parseTrusted(value<string | undefined>("maxBoost") ?? "", "boost", "bar");
  const [tool, bladder, part] = [bar("ratings.tool"), bar("ratings.bladder"), bar("ratings.part")];
  const ratings = { ...(tool ? { tool } : {}), ...(bladder ? { bladder } : {}), ...(part ? { part } : {}) };
  const supply = parseTrusted(value<string | undefined>("supply") ?? "", "supplyPressure", "bar");
  const stage = testStage({ ...(maxBoost ? { maxBoost } : {}), ratings }, context);
  const stops = rowsOf(value("steps"));
  const last = stops.length - 1;
  const now = parseTrusted(String(stops[last]?.pressure ?? ""), "testPressure", "bar");
  const inBar = (pa: number) => Number((pa / 1e5).toFixed(2));
  const tooHigh = now !== undefined && isAbove(toSi(now), stage);
  const move = (value: number) =>
    set({ steps: stops.map((stop, i) => (i === last ? { ...stop, pressure: `${value} bar` } : stop)) });
  return (
    <CheckFrame
      check={check}
      head={head}
      plan={pressureTest.plan(context, { ...setup, maxBoost, supply, ratings })}
      setup={setup}
      choose={(joint) => set({ entry: joint })}
      at={setup.entry}
    >
      <div className="grid items-start gap-6 md:grid-cols-[auto_minmax(0,1fr)]">
        <div className="max-w-56">
          <Dial
            label="Test gauge, bar gauge"
            value={now && inBar(toSi(now))}
            min={0}
            max={2}
            step={0.02}
            unit="bar gauge"
            band={{ low: 0, high: inBar(stage.pressure) }}
            onMove={move}
          />
          <p className={tooHigh ? "font-bold text-ember" : "text-muted"} role={tooHigh ? "alert" : undefined}>
            {tooHigh ? "Let it down: " : ""}at most {format(fromSi(stage.pressure, "bar", "gauge"))}, by {stage.binds}
          </p>
        </div>
        <div className="flex min-w-0 flex-col gap-3">
          <div className="grid items-start gap-4 sm:grid-cols-2">
            <FormFields of={check} names={["entry", "throttle"]} />
            <FormFields of={check} names={["maxBoost", "ratings.tool"]} />
          </div>
          <Stops check={check} stops={stops} />
        </div>
      </div>
      <Escapes check={check} />
      <FormFields of={check} names={["everywhere"]} />
      <FormFields of={check} names={["blocked"]} />
      <div className="grid items-start gap-4 sm:grid-cols-3">
        <FormFields of={check} names={["ratings.bladder", "ratings.part", "supply", "flow", "fillTime", "crank"]} />
      </div>
      <FormFields of={check} names={["instrument"]} />
    </CheckFrame>
  );
}

/** The way up: each stop with its pressure, the newest under the needle. */
function Stops({ check, stops }: { check: Check; stops: readonly Draft[] }) {
  const { set } = check;
  return (
    <section aria-label="Stops on the way up" className="flex flex-col gap-2">
      <ol className="grid gap-2 sm:grid-cols-2">
        {stops.map((_, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a stop is its place on the way up
          <li key={i} className="flex items-end gap-1">
            <div className="min-w-0 grow">
              <RowFields of={check} rows="steps" index={i} names={["pressure"]} />
            </div>
            {stops.length > 1 && (
              <IconButton label={`Take stop ${i + 1} out`} onClick={() => set({ steps: stops.filter((__, k) => k !== i) })}>
                <Trash2 aria-hidden size={18} />
              </IconButton>
            )}
          </li>
        ))}
      </ol>
      <div>
        <Button onClick={() => set({ steps: [...stops, {}] })}>
          <Plus aria-hidden size={18} /> Next stop
        </Button>
      </div>
    </section>
  );
}

/** Where air came out, how it showed, and from which pressure on. */
function Escapes({ check }: { check: Check }) {
  const { value, set } = check;
  const escapes = rowsOf(value("escapes"));
  const stops = rowsOf(value("steps"));
  const began = stops.at(-1)?.pressure;
  const [added, setAdded] = useState<number>();
  return (
    <section aria-label="Air came out" className="flex flex-col gap-2">
      {escapes.length > 0 && (
        <DividedList>
          {escapes.map((_, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: what came out is in the order it was found
            <li key={i} className="grid items-start gap-3 py-2 sm:grid-cols-[minmax(0,1fr)_13.5rem_11rem_auto]">
              <RowFields
                of={check}
                rows="escapes"
                index={i}
                names={["joint", "sign", "from"]}
                opened={i === added ? "joint" : undefined}
              />
              <IconButton
                label={`Take escape ${i + 1} out`}
                onClick={() => {
                  setAdded(undefined);
                  set({ escapes: escapes.filter((__, k) => k !== i) });
                }}
              >
                <Trash2 aria-hidden size={18} />
              </IconButton>
            </li>
          ))}
        </DividedList>
      )}
      <div>
        <Button
          onClick={() => {
            setAdded(escapes.length);
            // The stop that stands is where it is noticed; what shows there is to be said.
            set({ escapes: [...escapes, began ? { from: began } : {}] });
          }}
        >
          <Plus aria-hidden size={18} /> Air comes out here
        </Button>
      </div>
    </section>
  );
}
