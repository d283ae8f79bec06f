"use client";

import { formatDistanceToNowStrict } from "date-fns";
import type { KnownCar } from "@/core/journal";
import { Note } from "@/ui/note";
import { PageLink } from "@/ui/page-link";

const STANDS: Readonly<Record<string, string>> = {
  open: "still open",
  review: "re-check due",
  "handed-over": "handed over",
  closed: "closed",
  elsewhere: "closed in another shop",
};

/** A car that was here before: a fault that came back belongs to its old job, where what was done stands. */
export function EarlierVisits({ car: { visits, facts } }: { car: KnownCar }) {
  if (visits.length === 0) return null;
  return (
    <Note aria-label="This car was here before" tone="amber" as="section">
      <p>
        <strong>This car was here before{facts && ": its facts are filled in below"}.</strong> If it is the same fault again, go
        on in its job: say there that it came back.
      </p>
      <ul className="flex flex-col">
        {visits.map((v) => (
          <li key={v.id}>
            <PageLink href={`/jobs/${v.id}`} className="inline-flex min-h-11 items-center underline underline-offset-4">
              Job {v.number}, {STANDS[v.status] ?? v.status},{" "}
              {formatDistanceToNowStrict(new Date(v.updatedAt), { addSuffix: true })}:{" "}
              {v.complaint || "no complaint written down"}
            </PageLink>
          </li>
        ))}
      </ul>
    </Note>
  );
}
