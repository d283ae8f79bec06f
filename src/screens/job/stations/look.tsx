"use client";

import { CHECKS, type CheckContext } from "@/core/checks";
import { type LookRecord, type LookState, lookForm, lookList } from "@/core/checks/look";
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
  const check = useCheckForm("look", lookForm);
  const list = lookList(context.layout, context.vehicle);
  const plan = CHECKS.look.plan(context, undefined);
  const items = check.value<readonly Item[]>("items");
  const { pictures, corrects, error, finish } = useFinish(check, () => check.now().errors?.[0]?.message);
  const now = () => check.latest<readonly Item[]>("items");
  const mark = (id: string, change: Partial<Item>) => {
    const before = now().find((i) => i.id === id);
    check.set({ items: [...now().filter((i) => i.id !== id), { state: "found", ...before, ...change, id }] });
  };
  const markRest = () => {
    const open = list.filter(({ id }) => !now().some((i) => i.id === id));
    check.set({ items: [...now(), ...open.map(({ id }) => ({ id, state: "fine" as const }))] });
  };
  return (
    <StationFrame
      title="Look"
      lead="Eyes, hands, ears and nose. Do not tighten or touch a suspect cap or clamp: it destroys the evidence."
    >
      <WeakPlaces />
      <Cautions ids={plan.cautions} />
      {corrects && <CopyNote />}
      <ReadOnCar check={check} label="Look over the car" />
      <DividedList>
        {list.map((place) => {
          const item = items.find((i) => i.id === place.id);
          return (
            <li key={place.id} className="grid items-center gap-2 py-2 md:grid-cols-[1fr_auto]">
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
                onChange={(state) => mark(place.id, { state })}
              />
              {item?.state === "found" && (
                <div className="md:col-span-2">
                  <TextField
                    label="What was found"
                    value={item.note ?? ""}
                    onChange={(e) => mark(place.id, { note: e.target.value })}
                  />
                </div>
              )}
            </li>
          );
        })}
      </DividedList>
      <Pictures value={pictures} onChange={(next) => check.set({ pictures: next } as { readonly items?: unknown })} />
      {error && <ErrorNote>{error}</ErrorNote>}
      <div className="flex flex-wrap items-center gap-3">
        <Button look="primary" onClick={() => void finish()}>
          Record the look
        </Button>
        <Button onClick={markRest}>Mark the rest OK</Button>
        <p className="text-muted">
          {items.length} of {list.length} marked
        </p>
      </div>
      <VerdictList kind="look" />
    </StationFrame>
  );
}
