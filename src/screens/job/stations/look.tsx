"use client";

import { CHECKS } from "@/core/checks";
import { type LookState, lookList } from "@/core/checks/look";
import { Button } from "@/ui/button";
import { Choice } from "@/ui/choice";
import { ErrorNote, TextField } from "@/ui/field";
import { Cautions } from "../cautions";
import { useCheckEntries } from "../checks/use-record-check";
import { StationFrame } from "../station-frame";
import { useForm } from "../use-form";
import { useJob } from "../use-job";
import { VerdictList } from "../verdict";

type Items = Record<string, { state: LookState; note?: string }>;

/** The visual and by-hand look: a list fitted to the vehicle, marked place by place. */
export function LookStation() {
  const { context } = useJob();
  const entriesOf = useCheckEntries();
  const form = useForm("look", { items: {} as Items, startedAt: "" });
  if (!context)
    return (
      <StationFrame title="Look" lead="Describe the vehicle first: the list is fitted to it.">
        {" "}
      </StationFrame>
    );
  const list = lookList(context.layout, context.vehicle);
  const plan = CHECKS.look.plan(context, undefined);
  const { draft, set } = form;
  const mark = (id: string, change: Partial<{ state: LookState; note: string }>) =>
    set({
      items: { ...draft.items, [id]: { state: "found", ...draft.items[id], ...change } },
      ...(draft.startedAt ? {} : { startedAt: new Date().toISOString() }),
    });
  const marked = list.filter((i) => draft.items[i.id]);
  const record = () => {
    const items = marked.map((i) => {
      const { state: seen, note } = draft.items[i.id] as Items[string];
      return { id: i.id, state: seen, ...(note?.trim() ? { note: note.trim() } : {}) };
    });
    if (items.length === 0) return form.setError("Nothing looked at yet: mark at least one place");
    const to = new Date().toISOString();
    const entries = entriesOf("look", { items }, { from: draft.startedAt || to, to });
    if (typeof entries === "string") return form.setError(entries);
    void form.record(...entries);
  };
  return (
    <StationFrame
      title="Look"
      lead="Eyes, hands, ears and nose. Do not tighten or touch a suspect cap or clamp: it destroys the evidence."
    >
      <Cautions ids={plan.cautions} />
      <ul className="flex flex-col divide-y divide-line border-y border-line">
        {list.map((item) => {
          const now = draft.items[item.id];
          return (
            <li key={item.id} className="grid items-center gap-2 py-2 md:grid-cols-[1fr_auto]">
              <span>{item.text}</span>
              <Choice
                label={item.text}
                hideLabel
                options={[
                  ["found", "Found"],
                  ["fine", "Fine"],
                  ["not-reached", "Not reached"],
                ]}
                value={now?.state}
                onChange={(s) => mark(item.id, { state: s })}
              />
              {now?.state === "found" && (
                <div className="md:col-span-2">
                  <TextField
                    label="What was found"
                    value={now.note ?? ""}
                    onChange={(e) => mark(item.id, { note: e.target.value })}
                  />
                </div>
              )}
            </li>
          );
        })}
      </ul>
      {form.error && <ErrorNote>{form.error}</ErrorNote>}
      <div className="flex flex-wrap items-center gap-3">
        <Button look="primary" disabled={form.busy} onClick={record}>
          Record the look
        </Button>
        <Button
          onClick={() =>
            set({ items: { ...Object.fromEntries(list.map((i) => [i.id, { state: "fine" as const }])), ...draft.items } })
          }
        >
          Mark the rest fine
        </Button>
        <p className="text-muted">
          {marked.length} of {list.length} marked
        </p>
      </div>
      <VerdictList kind="look" />
    </StationFrame>
  );
}
