"use client";

import { useEffect, useState } from "react";
import { unlockForm } from "@/core/people";
import { Button } from "@/ui/button";
import { ErrorNote } from "@/ui/field";
import { Form } from "@/ui/form";
import { FormFields } from "../form/form-field";
import { useTypedForm } from "../form/use-typed-form";
import { sendJson } from "../session/api";
import { WaitingFile } from "./waiting-file";
import { wantedPath } from "./wanted-path";

/** The door for devices on the network. */
export function Unlock() {
  const form = useTypedForm(unlockForm, "pelota.draft.unlock", undefined);
  const [error, setError] = useState("");
  const { set } = form;
  // A code that was read off another device's screen stands in the address.
  useEffect(() => {
    const code = new URLSearchParams(window.location.search).get("code");
    if (code) set({ passphrase: code });
  }, [set]);
  const enter = async () => {
    const { record } = form.now();
    if (!record) return void form.complain();
    try {
      await sendJson("POST", "session", record);
      form.clear();
      window.location.assign(wantedPath(window.location.search, window.location.origin));
    } catch (e) {
      setError((e as Error).message);
    }
  };
  return (
    <main className="mx-auto flex min-h-dvh max-w-sm flex-col justify-center gap-5 p-6">
      <h1 className="text-2xl font-bold">Connect this device</h1>
      <Form className="flex flex-col gap-4" onSubmit={() => void enter()}>
        <FormFields of={form} names={["passphrase", "name"]} />
        {error && <ErrorNote>{error}</ErrorNote>}
        <Button type="submit" look="primary">
          Connect
        </Button>
      </Form>
      <WaitingFile />
    </main>
  );
}
