"use client";

import { useEffect, useState } from "react";
import { Button } from "@/ui/button";
import { Note } from "@/ui/note";
import { PageLink } from "@/ui/page-link";
import { usePerson } from "../session/person";
import { load, save } from "../session/storage";

const VISITED = "pelota.visited";

/** Offer to a device that was never here before: three ways in. */
export function FirstVisit({ walk }: { walk: string | undefined }) {
  // What this device knows is asked once the page stands: the server knows nothing of it.
  const [first, setFirst] = useState(false);
  const { person } = usePerson();
  useEffect(() => setFirst(load(VISITED) === undefined), []);
  if (!first) return null;
  const leave = () => {
    save(VISITED, true);
    setFirst(false);
  };
  const ways = [
    ...(walk
      ? [[`/jobs/${walk}?walk=1`, "Walk through a finished car", "Six stops, two minutes; leave at any time."] as const]
      : []),
    ["/new", "Begin with a car of your own", "Complaint and car first, then the bench."] as const,
    ["/start?check=trims", "Read a scan-tool log", "Fuel trims from a CSV: a first answer in a minute."] as const,
  ];
  // Whoever has signed in knows their way: one line is enough.
  if (person)
    return (
      <section
        aria-label="First time here"
        className="flex flex-wrap items-center gap-x-4 text-muted max-sm:gap-x-2 max-sm:text-sm"
      >
        <span className="max-sm:sr-only">First time here?</span>
        {ways.map(([href, title], i) => (
          <PageLink
            key={href}
            href={href}
            onClick={leave}
            // On a phone one way in leaves room for the cars.
            className={`inline-flex min-h-11 items-center text-live underline underline-offset-4 ${i > 0 ? "max-sm:hidden" : ""}`}
          >
            {title}
          </PageLink>
        ))}
        <Button look="bare" onClick={leave}>
          Not now
        </Button>
      </section>
    );
  return (
    <Note aria-label="First time here" tone="live" as="section">
      <div className="flex items-baseline justify-between gap-x-4">
        <h2 className="text-lg font-bold">First time here? Three ways in</h2>
        <Button look="bare" className="-mr-4 whitespace-nowrap" onClick={leave}>
          Not now
        </Button>
      </div>
      <ul className="grid gap-3 sm:grid-cols-3">
        {ways.map(([href, title, says]) => (
          <li key={href}>
            <PageLink
              href={href}
              onClick={leave}
              className="block min-h-14 rounded-md border border-edge px-4 py-3 hover:bg-panel"
            >
              <strong className="text-live">{title}</strong>
              <span className="block text-muted">{says}</span>
            </PageLink>
          </li>
        ))}
      </ul>
    </Note>
  );
}
