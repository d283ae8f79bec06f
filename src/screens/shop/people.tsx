"use client";

import { useCallback, useEffect, useState } from "react";
import { type Person, ROLES, type Role } from "@/core/people";
import { Button } from "@/ui/button";
import { DividedList } from "@/ui/divided-list";
import { ErrorNote, SelectField, TextField } from "@/ui/field";
import { getJson, sendJson } from "../session/api";
import { usePerson } from "../session/person";

const ROLE_OPTIONS = Object.entries(ROLES) as [Role, string][];

/** Who works here and as what; a lead takes people in, changes roles, and gives PINs. */
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
        takes people in.
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
        <NewPerson add={(one) => send(() => sendJson("POST", "people", one))} />
      )}
    </section>
  );
}

/** Wording of a person beside the role. */
function standing({ left, hasPin }: Person): string {
  if (left) return "works here no more";
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
  const [pin, setPin] = useState<string>();
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
          {pin === undefined ? (
            <Button onClick={() => setPin("")}>New PIN</Button>
          ) : (
            <form
              className="flex items-end gap-2"
              onSubmit={async (e) => {
                e.preventDefault();
                if (await change({ pin })) setPin(undefined);
              }}
            >
              <div className="w-40">
                <TextField
                  label={`New PIN of ${person.name}`}
                  inputMode="numeric"
                  type="password"
                  value={pin}
                  onChange={(e) => setPin(e.target.value)}
                />
              </div>
              <Button type="submit" look="primary">
                Give it
              </Button>
              <Button onClick={() => setPin(undefined)}>Leave it</Button>
            </form>
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

function NewPerson({ add }: { add: (one: { name: string; role: Role; pin: string }) => Promise<boolean> }) {
  const empty = { name: "", role: "technician" as Role, pin: "" };
  const [draft, setDraft] = useState(empty);
  return (
    <form
      className="grid items-end gap-3 sm:grid-cols-4"
      onSubmit={async (e) => {
        e.preventDefault();
        if (await add(draft)) setDraft(empty);
      }}
    >
      <TextField label="Name" value={draft.name} onChange={(e) => setDraft({ ...draft, name: e.target.value })} />
      <SelectField
        label="Role"
        options={ROLE_OPTIONS}
        value={draft.role}
        onChange={(e) => setDraft({ ...draft, role: e.target.value as Role })}
      />
      <TextField
        label="PIN, typed by whose it is"
        inputMode="numeric"
        type="password"
        value={draft.pin}
        onChange={(e) => setDraft({ ...draft, pin: e.target.value })}
      />
      <Button type="submit">Take in</Button>
    </form>
  );
}
