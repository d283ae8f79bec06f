"use client";

import { useCallback, useEffect, useState } from "react";
import { type NewPerson, newPersonForm, newPinForm, type Person, ROLES, type Role } from "@/core/people";
import { Button } from "@/ui/button";
import { DividedList } from "@/ui/divided-list";
import { ErrorNote, SelectField } from "@/ui/field";
import { Form } from "@/ui/form";
import { FormFields } from "../form/form-field";
import { getJson, sendJson } from "../session/api";
import { usePerson } from "../session/person";
import { useShopForm } from "./use-shop-form";

const ROLE_OPTIONS = Object.entries(ROLES) as [Role, string][];

/** Who works here and as what; a lead adds people, changes roles, and gives PINs. */
export function People() {
  const [people, setPeople] = useState<readonly Person[]>([]);
  const [error, setError] = useState("");
  const { mayNot, person, ask } = usePerson();
  const forbidden = person ? mayNot("manage-people") : "Sign in as a lead to change who works here";
  const read = useCallback(
    () =>
      getJson<Person[]>("people")
        .then(setPeople)
        .catch((e: Error) => setError(e.message)),
    [],
  );
  useEffect(() => void read(), [read]);
  const send = async (work: () => Promise<unknown>): Promise<boolean> => {
    if (!person) {
      ask();
      return false;
    }
    setError("");
    try {
      await work();
      await read();
      return true;
    } catch (e) {
      setError((e as Error).message);
      return false;
    }
  };
  return (
    <section aria-label="People" className="flex flex-col gap-3">
      <h2 className="text-xl font-bold">People</h2>
      <p className="max-w-prose text-muted">
        Apprentices record and propose; technicians sign repairs and close; a lead countersigns, changes limits and methods, and
        adds people.
      </p>
      <DividedList>
        {people.map((p) => (
          <PersonRow
            key={p.id}
            person={p}
            locked={forbidden !== undefined}
            change={(to) => send(() => sendJson("PUT", `people/${p.id}`, to))}
          />
        ))}
      </DividedList>
      {error && <ErrorNote>{error}</ErrorNote>}
      {forbidden ? (
        <p className="text-muted">{forbidden}.</p>
      ) : (
        <AddPerson add={(one) => send(() => sendJson("POST", "people", one))} />
      )}
    </section>
  );
}

/** Wording of a person beside the role. */
function standing({ left, hasPin }: Person): string {
  if (left) return "has left the shop";
  return hasPin ? "" : "no PIN yet: cannot sign in";
}

function PersonRow({
  person,
  locked,
  change,
}: {
  person: Person;
  locked: boolean;
  change: (to: { role?: Role; pin?: string; left?: boolean }) => Promise<boolean>;
}) {
  const [asked, setAsked] = useState(false);
  return (
    <li className="grid grid-cols-[1fr_auto] items-end gap-3 py-3 sm:grid-cols-[1fr_12rem_auto_auto]">
      <p className="self-center max-sm:col-span-2">
        <strong className={person.left ? "text-muted" : ""}>{person.name}</strong>{" "}
        <span className="text-muted">
          {locked && !person.left ? ROLES[person.role].toLowerCase() : ""} {standing(person)}
        </span>
      </p>
      {!locked && !person.left && (
        <>
          <div className="max-sm:col-span-2">
            <SelectField
              label={`Role of ${person.name}`}
              options={ROLE_OPTIONS}
              value={person.role}
              onChange={(e) => void change({ role: e.target.value as Role })}
            />
          </div>
          {asked ? (
            <NewPin of={person} give={(pin) => change({ pin })} done={() => setAsked(false)} />
          ) : (
            <Button onClick={() => setAsked(true)}>New PIN</Button>
          )}
        </>
      )}
      {!locked && (
        <Button
          className="col-start-2 sm:col-start-4"
          aria-label={`${person.left ? "Is back" : "Left the shop"}: ${person.name}`}
          onClick={() => void change({ left: !person.left })}
        >
          {person.left ? "Is back" : "Left the shop"}
        </Button>
      )}
    </li>
  );
}

function NewPin({ of, give, done }: { of: Person; give: (pin: string) => Promise<boolean>; done: () => void }) {
  const form = useShopForm(newPinForm, `pin.${of.id}`, undefined);
  return (
    <Form
      aria-label={`New PIN of ${of.name}`}
      className="flex items-end gap-2"
      onSubmit={() =>
        form.submit(async ({ pin }) => {
          const given = await give(pin);
          if (given) done();
          return given;
        })
      }
    >
      <div className="w-44">
        <FormFields of={form} names={["pin"]} />
      </div>
      <Button type="submit" look="primary">
        Change
      </Button>
      <Button onClick={done}>Cancel</Button>
    </Form>
  );
}

function AddPerson({ add }: { add: (one: NewPerson) => Promise<boolean> }) {
  const form = useShopForm(newPersonForm, "person", undefined);
  return (
    <Form className="flex flex-col gap-3" onSubmit={() => form.submit(add)}>
      <div className="grid items-start gap-3 sm:grid-cols-3">
        <FormFields of={form} names={["name", "role", "pin"]} />
      </div>
      <div>
        <Button type="submit">Add</Button>
      </div>
    </Form>
  );
}
