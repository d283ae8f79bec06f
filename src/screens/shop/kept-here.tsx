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
        <p className="text-calm">This browser keeps what waits here until it has been sent.</p>
      ) : (
        <>
          <p className={`max-w-prose ${kept === false ? "text-amber" : "text-muted"}`}>
            {kept === undefined
              ? "This browser does not say whether it keeps what waits here when space runs short."
              : "When space runs short, this browser may delete what waits here unsent."}
            {asked &&
              " It was asked, and does not promise more: put this page on the home screen or among the bookmarks, then ask again."}
          </p>
          <Button onClick={() => void ask()}>Ask it to keep everything</Button>
        </>
      )}
    </section>
  );
}
