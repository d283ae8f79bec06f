"use client";

import { format } from "date-fns";
import { usePathname } from "next/navigation";
import { DEVICE_OUT } from "@/core/people";
import { PageLink } from "@/ui/page-link";
import { sorted, useKept } from "./outbox";

/**
 * Outbox: what this device has made and the server has not got: how much waits, since when, and where something was refused.
 * @param brief where there is little room, since when only a wide screen says.
 */
export function Waiting({ brief = false }: { brief?: boolean }) {
  const { waiting, refused } = sorted(useKept());
  const path = usePathname();
  const at = waiting[0]?.entry.at;
  const asks = waiting.find((k) => k.asks)?.asks;
  const elsewhere = refused.find(({ entry }) => path !== `/jobs/${entry.jobId}`);
  return (
    <>
      {at && (
        <p role="status" className="whitespace-nowrap text-amber">
          {waiting.length} not sent yet
          <span className={brief ? "max-2xl:sr-only" : "max-sm:sr-only"}>
            , the oldest from {format(new Date(typeof at === "string" ? at : at.from), "HH:mm")}
          </span>
        </p>
      )}
      {asks &&
        (asks === DEVICE_OUT ? (
          <PageLink href="/unlock" className="inline-flex min-h-11 items-center text-ember underline underline-offset-4">
            {asks}
          </PageLink>
        ) : (
          <p className="text-amber">{asks}</p>
        ))}
      {elsewhere && (
        <PageLink
          href={`/jobs/${elsewhere.entry.jobId}`}
          className="inline-flex min-h-11 items-center text-ember underline underline-offset-4"
        >
          {refused.length} not taken: see why
        </PageLink>
      )}
    </>
  );
}
