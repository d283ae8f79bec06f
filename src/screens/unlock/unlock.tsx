"use client";

import { useEffect, useState } from "react";
import { Button } from "@/ui/button";
import { ErrorNote, TextField } from "@/ui/field";
import { sendJson } from "../session/api";
import { WaitingFile } from "./waiting-file";
import { wantedPath } from "./wanted-path";

/** The door for devices on the network. */
export function Unlock() {
  const [passphrase, setPassphrase] = useState("");
  const [name, setName] = useState("");
  const [error, setError] = useState("");
  // A code that was read off another device's screen stands in the address.
  useEffect(() => {
    const code = new URLSearchParams(window.location.search).get("code");
    // What was typed before this page came to life stays.
    if (code) setPassphrase(code);
  }, []);
  return (
    <main className="mx-auto flex min-h-dvh max-w-sm flex-col justify-center gap-5 p-6">
      <h1 className="text-2xl font-bold">Let this device in</h1>
      <form
        className="flex flex-col gap-4"
        onSubmit={(e) => {
          e.preventDefault();
          sendJson("POST", "session", { passphrase, name }).then(
            () => window.location.assign(wantedPath(window.location.search, window.location.origin)),
            (e: Error) => setError(e.message),
          );
        }}
      >
        <TextField
          label="Passphrase, or the code shown on a device that is in"
          type="password"
          value={passphrase}
          onChange={(e) => setPassphrase(e.target.value)}
        />
        <TextField
          label="Name of this device"
          hint="A lead finds it by this among the shop's devices"
          placeholder="Tablet 2"
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
        {error && <ErrorNote>{error}</ErrorNote>}
        <Button type="submit" look="primary">
          Come in
        </Button>
      </form>
      <WaitingFile />
    </main>
  );
}
