"use client";

import type { ReactNode } from "react";
import { expectedVacuum, type Needle, vacuum } from "@/core/checks/vacuum";
import { vacuumForm } from "@/core/checks/vacuum/fields";
import { fromSi, parseBare, parseTrusted, toSi } from "@/core/units";
import { Dial } from "@/ui/dial";
import { FormFields } from "../../../form/form-field";
import { usePreferences } from "../../../session/preferences";
import { CheckFrame } from "../check-frame";
import { useCheckForm } from "../use-check-form";
import { NeedlePicture } from "./needle-picture";

/** The gauge on the manifold: set to match the real one, its needle picked from how it moves. */
export function VacuumCheck({ head }: { head: ReactNode }) {
  const { number } = usePreferences();
  const check = useCheckForm("vacuum", vacuumForm);
  const { context, value, set, known } = check;
  const read = parseTrusted(value<string | undefined>("vacuum") ?? "", "vacuum", "inHg");
  const rpm = parseBare(value<string | undefined>("rpm") ?? "") ?? context.limits.idleSpeed.value;
  const band = known.ambient && expectedVacuum(context, { ambient: toSi(known.ambient), rpm });
  const inHg = (pa: number) => fromSi(pa, "inHg").value;
  return (
    <CheckFrame check={check} head={head} plan={vacuum.plan(context, undefined)} at="gauge-port">
      <div className="grid items-start gap-6 md:grid-cols-[auto_minmax(0,1fr)]">
        <Dial
          label="Vacuum gauge, inHg vacuum"
          value={read ? Number(inHg(toSi(read)).toFixed(1)) : undefined}
          min={0}
          max={30}
          step={0.1}
          unit="inHg vacuum"
          band={band ? { low: inHg(band.low), high: inHg(band.high) } : undefined}
          onMove={(v) => set({ vacuum: `${v} inHg` })}
        />
        <div className="flex min-w-0 flex-col gap-3">
          {band && (
            <p className="text-muted">
              Here and at this idle it should stand at{" "}
              <strong className="text-calm">
                {number(inHg(band.low), 1)} to {number(inHg(band.high), 1)} inHg vacuum
              </strong>
            </p>
          )}
          <div className="grid items-start gap-4 sm:grid-cols-2">
            <FormFields of={check} names={["vacuum", "rpm", "portSound", "warm"]} />
          </div>
        </div>
      </div>
      <FormFields
        of={check}
        names={["needle", "snap"]}
        draw={(id, name) => (
          <>
            {MOVES.has(id) && <NeedlePicture pattern={id as Needle} />} {name}
          </>
        )}
      />
      <FormFields of={check} names={["instrument"]} />
    </CheckFrame>
  );
}

/** Movement of a needle, which a picture shows better than a word. */
const MOVES = new Set<string>(["steady", "drifting", "regular-flick", "fast-flutter", "slow-return"]);
