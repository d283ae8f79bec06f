"use client";

import { UserRound } from "lucide-react";
import { createContext, type ReactNode, useCallback, useContext, useEffect, useState } from "react";
import { Button } from "@/ui/button";
import { Dialog } from "@/ui/dialog";
import { ErrorNote, TextField } from "@/ui/field";
import { getJson, sendJson } from "./api";
import { load, save } from "./storage";

const KEY = "pelota.person";
interface Person {
  id: string;
  name: string;
}

interface Session {
  /** Who works on this device; empty until somebody picked a name */
  readonly person: string;
  /** Asks for a name if there is none; resolves to the name, or empty when nobody wants to say */
  readonly ask: () => void;
}

const Context = createContext<Session>({ person: "", ask: () => {} });
export const usePerson = () => useContext(Context);

/** Everything recorded has a `by`: the technician picks a name on the device. */
export function PersonProvider({ children }: { children: ReactNode }) {
  const [person, setPerson] = useState("");
  const [open, setOpen] = useState(false);
  useEffect(() => setPerson(load<string>(KEY) ?? ""), []);
  const ask = useCallback(() => setOpen(true), []);
  const pick = (name: string) => {
    save(KEY, name);
    setPerson(name);
    setOpen(false);
  };
  return (
    <Context.Provider value={{ person, ask }}>
      {children}
      <Dialog
        open={open}
        onOpenChange={setOpen}
        title="Who is working?"
        description="Every entry carries the name of who made it."
      >
        {open && <People onPick={pick} />}
      </Dialog>
    </Context.Provider>
  );
}

function People({ onPick }: { onPick: (name: string) => void }) {
  const [people, setPeople] = useState<Person[]>();
  const [name, setName] = useState("");
  const [error, setError] = useState("");
  useEffect(() => {
    getJson<Person[]>("people")
      .then(setPeople)
      .catch((e: Error) => setError(e.message));
  }, []);
  const add = async () => {
    try {
      const person = await sendJson<Person>("POST", "people", { name });
      onPick(person.name);
    } catch (e) {
      setError((e as Error).message);
    }
  };
  return (
    <div className="flex flex-col gap-4">
      <div className="flex flex-wrap gap-2">
        {people?.map((p) => (
          <Button key={p.id} onClick={() => onPick(p.name)}>
            {p.name}
          </Button>
        ))}
        {people === undefined && !error && <p className="text-muted">Reading names…</p>}
      </div>
      <form
        className="flex items-end gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          void add();
        }}
      >
        <div className="grow">
          <TextField label="Not on the list? Add a name" value={name} onChange={(e) => setName(e.target.value)} />
        </div>
        <Button type="submit" look="primary">
          Add
        </Button>
      </form>
      {error && <ErrorNote>{error}</ErrorNote>}
    </div>
  );
}

/** The name on this device, to tap for another. @param brief on a phone a sign stands for it, amber while there is none. */
export function PersonButton({ brief = false }: { brief?: boolean }) {
  const { person, ask } = usePerson();
  return (
    <button
      type="button"
      onClick={ask}
      className="inline-flex min-h-11 cursor-pointer min-w-11 items-center justify-center gap-2 rounded-md px-2 hover:bg-raised"
    >
      <UserRound aria-hidden size={18} className={person ? "" : "text-amber"} />
      <span className={`${person ? "" : "text-amber"} ${brief ? "max-sm:sr-only" : ""}`}>{person || "Who is working?"}</span>
    </button>
  );
}
