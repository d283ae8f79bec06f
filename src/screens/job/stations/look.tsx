"use client";

import { useMemo } from "react";
import { CHECKS, type CheckContext } from "@/core/checks";
import { type LookItem, type LookRecord, type LookState, lookForm, STANDS, type Stand } from "@/core/checks/look";
import { looksOf } from "@/core/journal";
import { Button } from "@/ui/button";
import { Choice } from "@/ui/choice";
import { DividedList } from "@/ui/divided-list";
import { ErrorNote, TextField } from "@/ui/field";
import { Cautions } from "../cautions";
import { CopyNote } from "../checks/check-frame";
import { useCheckForm } from "../checks/use-check-form";
import { useFinish } from "../checks/use-finish";
import { WeakPlaces } from "../engine-card";
import { Pictures } from "../pictures";
import { ReadOnCar } from "../practice/read-on-car";
import { StationFrame } from "../station-frame";
import { useJob } from "../use-job";
import { VerdictList } from "../verdict";

type Item = LookRecord["items"][number];

/** The visual and by-hand look: a list fitted to the vehicle, marked place by place. */
export function LookStation() {
  const { context } = useJob();
  if (!context)
    return (
      <StationFrame title="Look" lead="Describe the vehicle first: the list is fitted to it.">
        {" "}
      </StationFrame>
    );
  return <Look context={context} />;
}

function Look({ context }: { context: CheckContext }) {
  const { state } = useJob();
  const check = useCheckForm("look", lookForm);
  const { asked, others } = useMemo(() => looksOf(context, state), [context, state]);
  const plan = CHECKS.look.plan(context, undefined);
  const items = check.value<readonly Item[]>("items");
  const { pictures, corrects, error, finish } = useFinish(check, () => check.now().errors?.[0]?.message);
  const now = () => check.latest<readonly Item[]>("items");
  const keep = (next: readonly Item[]) => check.set({ items: next, asked: asked.map(({ id }) => id) });
  const mark = (id: string, change: Partial<Item>) => {
    const before = now().find((i) => i.id === id);
    keep([...now().filter((i) => i.id !== id), { state: "found", ...before, ...change, id }]);
  };
  const open = asked.filter(({ id }) => !items.some((i) => i.id === id));
  const markRest = () => {
    const left = asked.filter(({ id }) => !now().some((i) => i.id === id));
    keep([...now(), ...left.map(({ id }) => ({ id, state: "fine" as const }))]);
  };
  const rows = (list: readonly LookItem[]) =>
    list.map((place) => (
      <LookRow
        key={place.id}
        place={place}
        item={items.find((i) => i.id === place.id)}
        mark={(change) => mark(place.id, change)}
      />
    ));
  const shown = (id: string) => items.some((i) => i.id === id);
  return (
    <StationFrame
      title="Look"
      lead="Eyes, hands, ears and nose. Do not tighten or touch a suspect cap or clamp: it destroys the evidence."
    >
      <WeakPlaces />
      <Cautions ids={plan.cautions} />
      {corrects && <CopyNote />}
      <ReadOnCar check={check} label="Look over the car" />
      {(Object.keys(STANDS) as Stand[]).map((stand) => {
        const here = asked.filter((place) => place.stand === stand);
        return here.length === 0 ? null : (
          <section key={stand} aria-label={STANDS[stand]}>
            <h3 className="text-sm text-muted">{STANDS[stand]}</h3>
            <DividedList>{rows(here)}</DividedList>
          </section>
        );
      })}
      {others.length > 0 && (
        <details open={others.some(({ id }) => shown(id))}>
          <summary className="flex min-h-11 cursor-pointer items-center text-muted">
            {others.length} more places on this car, not looked at unless marked
          </summary>
          <DividedList>{rows(others)}</DividedList>
        </details>
      )}
      <Pictures value={pictures} onChange={(next) => check.set({ pictures: next } as { readonly items?: unknown })} />
      {error && <ErrorNote>{error}</ErrorNote>}
      <div className="flex flex-wrap items-center gap-3">
        <Button look="primary" onClick={() => void finish()}>
          Record the look
        </Button>
        {open.length > 0 && (
          <Button onClick={markRest}>{open.length === asked.length ? "All OK" : `Rest OK (${open.length})`}</Button>
        )}
        <p className="text-muted">
          {asked.length - open.length} of {asked.length} marked
        </p>
      </div>
      <VerdictList kind="look" />
    </StationFrame>
  );
}

/** One place: OK, not OK with what was found, or out of sight. */
function LookRow({ place, item, mark }: { place: LookItem; item: Item | undefined; mark: (change: Partial<Item>) => void }) {
  return (
    <li className="grid items-center gap-x-4 gap-y-2 py-1.5 md:grid-cols-[1fr_auto]">
      <span>{place.text}</span>
      <Choice<LookState>
        label={place.text}
        hideLabel
        options={[
          ["found", "Not OK"],
          ["fine", "OK"],
          ["not-reached", "Can't see"],
        ]}
        value={item?.state}
        onChange={(state) => mark({ state })}
      />
      {item?.state === "found" && (
        <div className="md:col-span-2">
          <TextField label="What was found" value={item.note ?? ""} onChange={(e) => mark({ note: e.target.value })} />
        </div>
      )}
    </li>
  );
}
