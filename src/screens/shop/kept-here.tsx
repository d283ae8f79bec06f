"use client";

import { useEffect, useState } from "react";
import { Button } from "@/ui/button";
import { askToPersist, isPersisted } from "../session/persistence";

/** Whether what waits on this device is safe from its own browser. */
export function KeptHere() {
  const [kept, setKept] = useState<boolean>();
  const [asked, setAsked] = useState(false);
  useEffect(() => {
    isPersisted().then(setKept, () => {});
  }, []);
  const ask = () =>
    askToPersist().then(
      (answer) => {
        setKept(answer);
        setAsked(true);
      },
      () => setAsked(true),
    );
  return (
    <section aria-label="What this device keeps" className="flex flex-col items-start gap-3">
      <h2 className="text-xl font-bold">What this device keeps</h2>
      {kept ? (
        <p className="text-calm">This browser has promised to keep what waits here until it has gone up.</p>
      ) : (
        <>
          <p className={`max-w-prose ${kept === false ? "text-amber" : "text-muted"}`}>
            {kept === undefined
              ? "This browser does not say whether it keeps what waits here where space gets short."
              : "Where space gets short, this browser may clear what waits here and has not gone up."}
            {asked &&
              " It was asked, and does not promise more: put this page on the home screen or among the bookmarks, then ask again."}
          </p>
          <Button onClick={() => void ask()}>Ask it to keep everything</Button>
        </>
      )}
    </section>
  );
}
