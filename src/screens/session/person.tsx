"use client";

import { Lock, UserRound } from "lucide-react";
import { createContext, type ReactNode, useCallback, useContext, useState } from "react";
import { type Act, mayNot, may as mayRole, type Role } from "@/core/people";
import { Dialog } from "@/ui/dialog";
import { useSignedIn } from "./sign-in";
import { WhoWorks } from "./who-works";

interface Session {
  /** Who works on this device; empty until somebody has signed in */
  readonly person: string;
  readonly role?: Role | undefined;
  /** Why whoever is in may not do this; undefined where they may, or nobody is in and will be asked anyway */
  readonly mayNot: (act: Act) => string | undefined;
  /** Asks who works here */
  readonly ask: () => void;
}

const NOBODY: Session = { person: "", mayNot: () => undefined, ask: () => {} };
const Context = createContext<Session>(NOBODY);
export const usePerson = () => useContext(Context);

/** Everything recorded has an author: whoever works here signs in by name and PIN. */
export function PersonProvider({ children }: { children: ReactNode }) {
  const here = useSignedIn();
  const [open, setOpen] = useState(false);
  const ask = useCallback(() => setOpen(true), []);
  const role = here?.role;
  const session: Session = {
    person: here?.name ?? "",
    role,
    mayNot: (act) => (role === undefined || mayRole(role, act) ? undefined : mayNot(act)),
    ask,
  };
  return (
    <Context.Provider value={session}>
      {children}
      <Dialog
        open={open}
        onOpenChange={setOpen}
        title="Who is working?"
        description="What you record carries your name. Pick it, and type your PIN."
      >
        {open && <WhoWorks here={here} done={() => setOpen(false)} />}
      </Dialog>
    </Context.Provider>
  );
}

/** The name on this device, to tap for another or to lock it. @param brief on a phone a sign stands for it, amber while there is none. */
export function PersonButton({ brief = false }: { brief?: boolean }) {
  const { person, ask } = usePerson();
  return (
    <button
      type="button"
      data-person
      onClick={ask}
      className="inline-flex min-h-11 cursor-pointer min-w-11 items-center justify-center gap-2 rounded-md px-2 hover:bg-raised"
    >
      {person ? <UserRound aria-hidden size={18} /> : <Lock aria-hidden size={18} className="text-amber" />}
      <span className={`${person ? "" : "text-amber"} ${brief ? "max-sm:sr-only" : ""}`}>{person || "Sign in"}</span>
    </button>
  );
}
