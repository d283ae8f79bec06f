"use client";

import { Lock } from "lucide-react";
import { useEffect, useState } from "react";
import { ownPinForm, type Person, pinForm, ROLES, type SignedIn } from "@/core/people";
import { Button, buttonClass } from "@/ui/button";
import { ErrorNote, SelectField } from "@/ui/field";
import { Form } from "@/ui/form";
import { PageLink } from "@/ui/page-link";
import { FormFields } from "../form/form-field";
import { useTypedForm } from "../form/use-typed-form";
import { getJson, Offline, sendJson } from "./api";
import { sendNow } from "./outbox";
import { enterOffline, enterWith, knownHere, lock, lockAfter, setLockAfter } from "./sign-in";

type PersonHere = Pick<Person, "id" | "name" | "role">;
/** Who may sign in, as the server says, or as far as this device knows while the server is offline. */
interface Door {
  readonly people: readonly PersonHere[];
  readonly lead: boolean;
  /** Everybody's PIN in the demo */
  readonly demoPin?: string;
  readonly offline?: true;
}

async function askDoor(): Promise<Door> {
  try {
    return await getJson<Door>("sign-in");
  } catch (error) {
    if (!(error instanceof Offline)) throw error;
    const known = await knownHere();
    return { people: known.map((k) => ({ id: k.personId, name: k.name, role: k.role })), lead: true, offline: true };
  }
}

/** @returns what was wrong. */
async function comeIn(personId: string, pin: string): Promise<string | undefined> {
  try {
    await enterWith(await sendJson<SignedIn>("POST", "sign-in", { person: personId, pin }), pin);
  } catch (error) {
    if (!(error instanceof Offline)) return (error as Error).message;
    const wrong = await enterOffline(personId, pin);
    if (wrong) return wrong;
  }
  void sendNow();
  return undefined;
}

/** Who signs in on this device: by name and PIN, with the server or, for who was here lately, without. */
export function WhoWorks({ here, done }: { here: SignedIn | undefined; done: () => void }) {
  const [door, setDoor] = useState<Door>();
  const [chosen, setChosen] = useState<PersonHere>();
  const [changing, setChanging] = useState(false);
  const [error, setError] = useState("");
  useEffect(() => {
    askDoor()
      .then(setDoor)
      .catch((e: Error) => setError(e.message));
  }, []);
  if (chosen) return <GivePin who={chosen} demoPin={door?.demoPin} done={done} back={() => setChosen(undefined)} />;
  if (changing && here) return <ChangePin here={here} done={done} />;
  return (
    <div className="flex flex-col gap-4">
      {here && (
        <div className="flex flex-wrap items-center gap-3 border-b border-line pb-4">
          <p className="mr-auto text-lg">
            <strong>{here.name}</strong> <span className="text-muted">{ROLES[here.role].toLowerCase()}, signed in</span>
          </p>
          <Button onClick={() => setChanging(true)}>Change my PIN</Button>
          <Button
            onClick={() => {
              lock();
              done();
            }}
          >
            <Lock aria-hidden size={18} /> Lock
          </Button>
        </div>
      )}
      {door?.offline && (
        <p className="text-amber">
          The server is offline. Whoever signed in here lately comes in with their PIN; what they record waits for it.
        </p>
      )}
      <div className="grid gap-2 sm:grid-cols-2">
        {door?.people
          .filter((p) => p.id !== here?.personId)
          .map((p) => (
            <Button key={p.id} className="!justify-between" onClick={() => setChosen(p)}>
              {p.name} <span className="text-sm text-muted">{ROLES[p.role].toLowerCase()}</span>
            </Button>
          ))}
      </div>
      {door === undefined && !error && <p className="text-muted">Loading names…</p>}
      {door?.offline && door.people.length === 0 && (
        <p>Nobody has signed in here in the last days: the first sign-in needs the server once.</p>
      )}
      {door && !door.lead && (
        <p>
          This shop has no lead yet.{" "}
          <PageLink href="/first-start" className={buttonClass("primary")}>
            Set the shop up
          </PageLink>
        </p>
      )}
      {typeof window !== "undefined" && !window.isSecureContext && (
        <p className="text-muted">
          This page is on plain HTTP: this device cannot keep the app, and without the server it does not open. Over HTTPS it
          does.
        </p>
      )}
      <LockAfter />
      {error && <ErrorNote>{error}</ErrorNote>}
    </div>
  );
}

const MINUTE = 60_000;
const LOCKS: readonly (readonly [string, string])[] = [
  [String(5 * MINUTE), "5 minutes"],
  [String(10 * MINUTE), "10 minutes"],
  [String(30 * MINUTE), "Half an hour"],
  [String(120 * MINUTE), "2 hours"],
];

/** How long this device may lie untouched. */
function LockAfter() {
  const [after, setAfter] = useState(String(lockAfter()));
  return (
    <SelectField
      label="This device locks by itself when nobody has touched it for"
      hint="What was typed stays, and is there for whoever unlocks it"
      options={LOCKS}
      value={after}
      onChange={(e) => {
        setAfter(e.target.value);
        setLockAfter(Number(e.target.value));
      }}
    />
  );
}

function GivePin({
  who,
  demoPin,
  done,
  back,
}: {
  who: PersonHere;
  demoPin: string | undefined;
  done: () => void;
  back: () => void;
}) {
  const form = useTypedForm(pinForm, "pelota.draft.pin", who);
  const [error, setError] = useState("");
  const [busy, setBusy] = useState(false);
  const { focus, set } = form;
  useEffect(() => focus("pin"), [focus]);
  const give = async () => {
    const { record } = form.now();
    if (!record) return void form.complain();
    setBusy(true);
    const wrong = await comeIn(who.id, record.pin);
    setBusy(false);
    if (!wrong) return done();
    setError(wrong);
    set({ pin: "" });
    focus("pin");
  };
  return (
    <Form
      className="flex flex-col gap-4"
      onSubmit={() => {
        if (!busy) void give();
      }}
    >
      <FormFields of={form} names={["pin"]} />
      {error && <ErrorNote>{error}</ErrorNote>}
      {demoPin && <p className="text-muted">This is the demo: everybody's PIN is {demoPin}.</p>}
      <div className="flex flex-wrap gap-2">
        <Button type="submit" look="primary" disabled={busy}>
          {busy ? "Checking…" : "Sign in"}
        </Button>
        <Button onClick={back}>Someone else</Button>
      </div>
    </Form>
  );
}

function ChangePin({ here, done }: { here: SignedIn; done: () => void }) {
  const form = useTypedForm(ownPinForm, "pelota.draft.own-pin", undefined);
  const [second, setSecond] = useState(false);
  const [error, setError] = useState("");
  const give = async () => {
    if (!second) return setSecond(form.value<string>("pin") !== undefined);
    const { record } = form.now();
    if (!record) return void form.complain();
    try {
      await sendJson("POST", "people/own-pin", { person: here.personId, ...record });
      // The old sign-in opens no door any more.
      const wrong = await comeIn(here.personId, record.newPin);
      if (wrong) setError(wrong);
      else done();
    } catch (e) {
      setError((e as Error).message);
      setSecond(false);
      form.set({ pin: "", newPin: "" });
    }
  };
  return (
    <Form className="flex flex-col gap-4" onSubmit={() => void give()}>
      <FormFields of={form} names={[second ? "newPin" : "pin"]} />
      {error && <ErrorNote>{error}</ErrorNote>}
      <div>
        <Button type="submit" look="primary">
          {second ? "Change PIN" : "Next"}
        </Button>
      </div>
    </Form>
  );
}
