"use client";

import { Plus, Trash2 } from "lucide-react";
import { useState } from "react";
import { BadInput, validate } from "@/core/input";
import { firstStartSchema, type NewPerson, ROLES, type Role, type SignedIn, type FirstStart as Start } from "@/core/people";
import { machineForm } from "@/core/shop/settings";
import { Button, IconButton } from "@/ui/button";
import { ErrorNote, SelectField, TextField } from "@/ui/field";
import { Form } from "@/ui/form";
import { FormFields } from "../form/form-field";
import { useTypedForm } from "../form/use-typed-form";
import { sendJson } from "../session/api";
import { enterWith } from "../session/sign-in";
import { MACHINE_FIELDS } from "../shop/machine-fields";

const ROLE_OPTIONS = Object.entries(ROLES) as [Role, string][];

/** A complaint, and its field. */
interface Wrong {
  readonly path: string;
  readonly message: string;
}

/** A shop nobody has described yet: its name, its lead, who works there and the first machine, on one page. */
export function FirstStart({ known, shopName }: { known: readonly string[]; shopName: string }) {
  const [shop, setShop] = useState(known.length > 0 ? shopName : "");
  const [lead, setLead] = useState({ name: known[0] ?? "", pin: "" });
  const [people, setPeople] = useState<readonly NewPerson[]>(
    known.slice(1).map((name) => ({ name, role: "technician", pin: "" })),
  );
  const machine = useTypedForm(machineForm, "pelota.draft.shop.machine", undefined);
  const [wrong, setWrong] = useState<Wrong>();
  const [busy, setBusy] = useState(false);
  const says = (path: string) => (wrong?.path === path ? wrong.message : undefined);
  const read = async (): Promise<Start> => {
    const named = String(machine.value("name") ?? "").trim() !== "";
    const { record, errors } = named ? machine.now() : {};
    if (errors) {
      await machine.complain();
      throw new BadInput("The machine is not all there yet: it says what", "machine");
    }
    return validate<Start>(firstStartSchema, { shop, lead, people, ...(record ? { machine: record } : {}) });
  };
  const begin = async () => {
    setBusy(true);
    setWrong(undefined);
    try {
      await enterWith(await sendJson<SignedIn>("POST", "first-start", await read()), lead.pin);
      machine.clear();
      window.location.assign("/");
    } catch (e) {
      setWrong({ path: e instanceof BadInput ? e.path : "", message: (e as Error).message });
      setBusy(false);
    }
  };
  const change = (i: number, to: Partial<NewPerson>) => setPeople(people.map((p, k) => (k === i ? { ...p, ...to } : p)));
  const placed = wrong && (wrong.path === "shop" || /^(lead\.|people\[)/.test(wrong.path));
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
          <TextField
            label="Name of the shop, as it stands on papers"
            required
            value={shop}
            error={says("shop")}
            onChange={(e) => setShop(e.target.value)}
          />
        </section>
        <section aria-label="The lead" className="flex flex-col gap-3">
          <div>
            <h2 className="text-xl font-bold">The lead</h2>
            <p className="text-muted">Countersigns what apprentices close, changes limits and methods, takes people in.</p>
          </div>
          <div className="grid items-start gap-3 sm:grid-cols-2">
            <TextField
              label="Name of the lead"
              required
              value={lead.name}
              error={says("lead.name")}
              onChange={(e) => setLead({ ...lead, name: e.target.value })}
            />
            <TextField
              label="PIN of the lead"
              required
              type="password"
              inputMode="numeric"
              hint="4 to 8 digits, and no row of them"
              value={lead.pin}
              error={says("lead.pin")}
              onChange={(e) => setLead({ ...lead, pin: e.target.value })}
            />
          </div>
        </section>
        <section aria-label="Who else works here" className="flex flex-col gap-3">
          <div>
            <h2 className="text-xl font-bold">Who else works here</h2>
            <p className="text-muted">
              An apprentice records and proposes; a technician signs repairs and closes jobs. Name a second lead: where the only
              one is away or forgets a PIN, nobody else lets anybody in. More can come in later.
            </p>
          </div>
          {people.map((p, i) => (
            <div
              // biome-ignore lint/suspicious/noArrayIndexKey: lines have nothing else that tells them apart
              key={i}
              className="grid grid-cols-[1fr_auto] items-start gap-3 sm:grid-cols-[1fr_12rem_12rem_auto]"
            >
              <TextField
                label={`Name ${i + 1}`}
                value={p.name}
                error={says(`people[${i}].name`)}
                onChange={(e) => change(i, { name: e.target.value })}
              />
              <SelectField
                label={`Role ${i + 1}`}
                options={ROLE_OPTIONS}
                value={p.role}
                onChange={(e) => change(i, { role: e.target.value as Role })}
              />
              <TextField
                label={`PIN ${i + 1}`}
                type="password"
                inputMode="numeric"
                value={p.pin}
                error={says(`people[${i}].pin`)}
                onChange={(e) => change(i, { pin: e.target.value })}
              />
              <div className="pt-6">
                <IconButton label={`Take line ${i + 1} out`} onClick={() => setPeople(people.filter((_, k) => k !== i))}>
                  <Trash2 aria-hidden size={18} />
                </IconButton>
              </div>
            </div>
          ))}
          <div>
            <Button onClick={() => setPeople([...people, { name: "", role: "technician", pin: "" }])}>
              <Plus aria-hidden size={18} /> One more
            </Button>
          </div>
        </section>
        <section aria-label="The first smoke machine" className="flex flex-col gap-3">
          <div>
            <h2 className="text-xl font-bold">The first smoke machine</h2>
            <p className="text-muted">
              As its plate says; its calibration can follow. Leave it empty to add machines later, in Shop.
            </p>
          </div>
          <div className="grid items-start gap-3 sm:grid-cols-3">
            <FormFields of={machine} names={MACHINE_FIELDS} />
          </div>
          {wrong?.path.startsWith("machine") && <ErrorNote>{wrong.message}</ErrorNote>}
        </section>
        {wrong && !wrong.path.startsWith("machine") && (
          <ErrorNote>{placed ? "Something above is not right yet: it says what." : wrong.message}</ErrorNote>
        )}
        <div>
          <Button type="submit" look="primary" disabled={busy}>
            {busy ? "Setting up…" : "Begin"}
          </Button>
        </div>
      </Form>
    </main>
  );
}
