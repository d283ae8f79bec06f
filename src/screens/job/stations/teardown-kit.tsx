"use client";

import { useState } from "react";
import { KIT_KINDS, type KitItem, type KitKind, teardownKit } from "@/core/vehicle";
import { Button } from "@/ui/button";
import { DividedList } from "@/ui/divided-list";
import { ErrorNote, SelectField, TextField } from "@/ui/field";
import { Form } from "@/ui/form";
import { useJob } from "../use-job";

/** Supplies for the teardown, worked out beforehand: proposed for the place, added to by hand, ticked off when at hand. */
export function TeardownKit({ place }: { place: string | undefined }) {
  const { state, layout, append } = useJob();
  const [error, setError] = useState<string>();
  const [kind, setKind] = useState<KitKind>("seal");
  const [what, setWhat] = useState("");
  const proposed = layout && place ? teardownKit(layout, place) : [];
  const items = state.kit.length > 0 ? state.kit : proposed;
  if (items.length === 0 && !place) return null;
  const write = async (next: readonly KitItem[]) => setError(await append({ kind: "kit", body: { items: next } }));
  const missing = items.filter((i) => !i.ready).length;
  return (
    <section aria-label="Teardown kit" className="flex max-w-3xl flex-col gap-2">
      <h3 className="text-lg font-bold">
        Teardown kit{" "}
        <span className="font-normal text-muted">
          {missing === 0 ? "all at hand" : `${missing} of ${items.length} not at hand yet`}; the maker's list goes before this one
        </span>
      </h3>
      <DividedList>
        {items.map((item, i) => (
          <li key={item.what}>
            <label className="flex min-h-11 cursor-pointer items-center gap-3">
              <input
                type="checkbox"
                className="size-6 shrink-0 accent-[var(--accent)]"
                checked={item.ready}
                onChange={(e) => void write(items.map((x, k) => (k === i ? { ...x, ready: e.target.checked } : x)))}
              />
              <span className="mr-auto">{item.what}</span>
              <span className="text-sm text-muted">{KIT_KINDS[item.kind]}</span>
            </label>
          </li>
        ))}
      </DividedList>
      <Form
        className="flex flex-wrap items-end gap-3"
        onSubmit={() => {
          if (!what.trim()) return setError("Say what is needed");
          void write([...items, { kind, what: what.trim(), ready: false }]);
          setWhat("");
        }}
      >
        <SelectField
          label="Kind of item"
          options={Object.entries(KIT_KINDS) as [KitKind, string][]}
          value={kind}
          onChange={(e) => setKind(e.target.value as KitKind)}
        />
        <TextField label="Also needed" value={what} onChange={(e) => setWhat(e.target.value)} />
        <Button type="submit">Add to the kit</Button>
      </Form>
      {error && <ErrorNote>{error}</ErrorNote>}
    </section>
  );
}
