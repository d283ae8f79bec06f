"use client";

import { Plus, Trash2 } from "lucide-react";
import { useMemo, useState } from "react";
import { firstStartForm, type SignedIn } from "@/core/people";
import { machineForm } from "@/core/shop/settings";
import { Button, IconButton } from "@/ui/button";
import { ErrorNote } from "@/ui/field";
import { Form } from "@/ui/form";
import { FormFields, RowFields } from "../form/form-field";
import { useTypedForm } from "../form/use-typed-form";
import { sendJson } from "../session/api";
import { enterWith } from "../session/sign-in";
import { MACHINE_FIELDS } from "../shop/machine-fields";

/** A shop nobody has described yet: its name, its lead, who works there and the first machine, on one page. */
export function FirstStart({ known, shopName }: { known: readonly string[]; shopName: string }) {
  const names = useMemo(() => ({ known, shopName }), [known, shopName]);
  const form = useTypedForm(firstStartForm, "pelota.draft.first-start", names);
  const machine = useTypedForm(machineForm, "pelota.draft.shop.machine", undefined);
  const [error, setError] = useState("");
  const [busy, setBusy] = useState(false);
  const people = form.value<readonly object[]>("people") ?? [];
  const begin = async () => {
    setError("");
    const { record } = form.now();
    if (!record) {
      setError("Something above is not right yet: it says what");
      return void form.complain();
    }
    const named = String(machine.value("name") ?? "").trim() !== "";
    const { record: first, errors } = named ? machine.now() : {};
    if (errors) {
      setError("The machine is not all there yet: it says what");
      return void machine.complain();
    }
    setBusy(true);
    try {
      const body = { ...record, ...(first ? { machine: first } : {}) };
      await enterWith(await sendJson<SignedIn>("POST", "first-start", body), record.lead.pin);
      machine.clear();
      form.clear();
      window.location.assign("/");
    } catch (e) {
      setError((e as Error).message);
      setBusy(false);
    }
  };
  return (
    <main className="mx-auto flex max-w-3xl flex-col gap-8 p-4 sm:p-6">
      <header>
        <h1 className="text-2xl font-bold">Set the shop up</h1>
        <p className="max-w-prose text-muted">
          Two minutes, once. Everything recorded here carries the name of who made it: each signs in with a PIN of their own.
        </p>
      </header>
      <Form
        className="flex flex-col gap-8"
        onSubmit={() => {
          if (!busy) void begin();
        }}
      >
        <section aria-label="The shop" className="max-w-md">
          <FormFields of={form} names={["shop"]} />
        </section>
        <section aria-label="The lead" className="flex flex-col gap-3">
          <div>
            <h2 className="text-xl font-bold">The lead</h2>
            <p className="text-muted">Countersigns what apprentices close, changes limits and methods, adds people.</p>
          </div>
          <div className="grid items-start gap-3 sm:grid-cols-2">
            <FormFields of={form} names={["lead.name", "lead.pin"]} />
          </div>
        </section>
        <section aria-label="Who else works here" className="flex flex-col gap-3">
          <div>
            <h2 className="text-xl font-bold">Who else works here</h2>
            <p className="text-muted">
              An apprentice records and proposes; a technician signs repairs and closes jobs. Name a second lead: where the only
              one is away or forgets a PIN, nobody else lets anybody in. More can be added later.
            </p>
          </div>
          {people.map((_, i) => (
            <fieldset
              // biome-ignore lint/suspicious/noArrayIndexKey: lines have nothing else that tells them apart
              key={i}
              aria-label={`Person ${i + 1}`}
              className="grid grid-cols-[1fr_auto] items-start gap-3 sm:grid-cols-[1fr_18rem_12rem_auto]"
            >
              <RowFields of={form} rows="people" index={i} names={["name", "role", "pin"]} />
              <div className="pt-6">
                <IconButton
                  label={`Remove person ${i + 1}`}
                  onClick={() => form.set({ people: people.filter((_, k) => k !== i) })}
                >
                  <Trash2 aria-hidden size={18} />
                </IconButton>
              </div>
            </fieldset>
          ))}
          <div>
            <Button onClick={() => form.set({ people: [...people, {}] })}>
              <Plus aria-hidden size={18} /> Add person
            </Button>
          </div>
        </section>
        <section aria-label="The first smoke machine" className="flex flex-col gap-3">
          <div>
            <h2 className="text-xl font-bold">The first smoke machine</h2>
            <p className="text-muted">
              As rated on its plate; its calibration can follow. Leave it empty to add machines later, in Shop.
            </p>
          </div>
          <div className="grid items-start gap-3 sm:grid-cols-3">
            <FormFields of={machine} names={MACHINE_FIELDS} />
          </div>
        </section>
        {error && <ErrorNote>{error}</ErrorNote>}
        <div>
          <Button type="submit" look="primary" disabled={busy}>
            {busy ? "Setting up…" : "Begin"}
          </Button>
        </div>
      </Form>
    </main>
  );
}
