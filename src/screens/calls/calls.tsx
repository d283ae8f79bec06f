"use client";

import { addDays, differenceInCalendarDays, format, parseISO } from "date-fns";
import { PhoneCall } from "lucide-react";
import { CALLS, type CustomerCall } from "@/core/journal";
import { LinkButton } from "@/ui/button";
import { DividedList } from "@/ui/divided-list";
import { PageLink } from "@/ui/page-link";
import { Behind } from "../board/behind";
import { PageHead } from "../session/page-head";

/** Days ahead that are looked at as coming */
const SOON = 14;

/** Whom to call when: how it held, what is temporary, what was left. */
export function Calls({ behind, calls, today }: { behind: number; calls: readonly CustomerCall[]; today: string }) {
  const soon = format(addDays(parseISO(today), SOON), "yyyy-MM-dd");
  const parts = [
    ["Due", calls.filter((c) => c.on <= today), "No follow-up is due today."],
    [`In the next ${SOON} days`, calls.filter((c) => c.on > today && c.on <= soon), "Nothing falls due."],
    ["Later", calls.filter((c) => c.on > soon), "Nothing is noted."],
  ] as const;
  return (
    <div className="mx-auto flex max-w-5xl flex-col gap-8 p-4 sm:p-6">
      <PageHead title="Follow-ups" />
      <main className="flex flex-col gap-8">
        <Behind jobs={behind} />
        <p className="max-w-3xl text-muted">
          Temporary repairs, work left open and calls to ask how a repair held, each on its day. Record what the customer says in
          the job, under Hand over; a car that comes back goes on in its old job.
        </p>
        {parts.map(([title, list, none]) => (
          <section key={title} aria-label={title} className="flex flex-col gap-2">
            <h2 className="text-xl font-bold">
              {title} <span className="font-normal text-muted">{list.length}</span>
            </h2>
            {list.length === 0 ? (
              <p className="text-muted">{none}</p>
            ) : (
              <DividedList>
                {list.map((call) => (
                  <Row key={`${call.jobId} ${call.about} ${call.on} ${call.what}`} call={call} today={today} />
                ))}
              </DividedList>
            )}
          </section>
        ))}
      </main>
    </div>
  );
}

function Row({ call, today }: { call: CustomerCall; today: string }) {
  const { on, about, what, jobId, number, vehicle, registration, customer } = call;
  const late = differenceInCalendarDays(parseISO(today), parseISO(on));
  const dialled = customer?.contact.replace(/[^\d+]/g, "") ?? "";
  return (
    <li className="grid gap-x-6 gap-y-1 py-3 sm:grid-cols-[9rem_minmax(0,1fr)_minmax(0,14rem)]">
      <p className={late > 0 ? "text-amber" : ""}>
        <time dateTime={on} className="block text-lg">
          {format(parseISO(on), on.slice(0, 4) === today.slice(0, 4) ? "EEE d MMM" : "EEE d MMM yyyy")}
        </time>
        <span className="text-sm">
          {late > 0 ? `${late} ${late === 1 ? "day" : "days"} ago` : late === 0 ? "today" : `in ${-late} days`}
        </span>
      </p>
      <div className="min-w-0">
        <p className="text-lg">{CALLS[about]}</p>
        <p className="line-clamp-3 text-muted">{what}</p>
        <PageLink href={`/jobs/${jobId}`} className="inline-flex min-h-11 items-center underline underline-offset-4">
          Job {number} · {[vehicle, registration].filter(Boolean).join(", ")}
        </PageLink>
      </div>
      <div className="flex min-w-0 flex-col gap-1 sm:items-start">
        <p className="text-lg">{customer?.name || "No contact in the job"}</p>
        {customer?.contact &&
          // A number can be dialled from here, anything else is read.
          (dialled.length >= 6 ? (
            <LinkButton href={`tel:${dialled}`}>
              <PhoneCall aria-hidden size={18} /> {customer.contact}
            </LinkButton>
          ) : (
            <p className="text-muted">{customer.contact}</p>
          ))}
      </div>
    </li>
  );
}
