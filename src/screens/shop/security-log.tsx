"use client";

import { useState } from "react";
import { SECURITY_EVENTS, type SecurityLine } from "@/core/people";
import { Button } from "@/ui/button";
import { ErrorNote } from "@/ui/field";
import { LongList } from "@/ui/long-list";
import { shortTime } from "../job/short-time";
import { getJson } from "../session/api";
import { usePerson } from "../session/person";

/** Events at the doors, for the lead: read when it is asked for, and never changed. */
export function SecurityLog() {
  const [lines, setLines] = useState<readonly SecurityLine[]>();
  const [error, setError] = useState("");
  const { person, mayNot, ask } = usePerson();
  const forbidden = person ? mayNot("see-security-log") : undefined;
  const read = () => {
    if (!person) return ask();
    setError("");
    getJson<SecurityLine[]>("security-log").then(setLines, (e: Error) => setError(e.message));
  };
  return (
    <section aria-label="Security log" className="flex flex-col items-start gap-3">
      <h2 className="text-xl font-bold">Security log</h2>
      <p className="max-w-prose text-muted">
        Wrong PINs and passphrases, roles, devices in and out, limits, files imported and exported, customers erased, backups
        restored. It is only ever added to.
      </p>
      {forbidden ? (
        <p className="text-muted">{forbidden}.</p>
      ) : (
        <Button onClick={read}>{lines ? "Read it again" : "Read it"}</Button>
      )}
      {error && <ErrorNote>{error}</ErrorNote>}
      {lines?.length === 0 && <p>Nothing yet.</p>}
      {lines && lines.length > 0 && (
        <div className="w-full">
          <LongList
            count={lines.length}
            keyOf={(i) => String((lines[i] as SecurityLine).id)}
            row={(i) => <Row line={lines[i] as SecurityLine} />}
          />
        </div>
      )}
    </section>
  );
}

function Row({ line: { at, what, who, device, detail } }: { line: SecurityLine }) {
  return (
    <p className="flex flex-wrap gap-x-3 border-b border-line py-2">
      <time dateTime={at} className="w-32 text-muted">
        {shortTime(at)}
      </time>
      <strong>{SECURITY_EVENTS[what]}</strong>
      <span>{[who, detail].filter(Boolean).join(": ")}</span>
      <span className="text-muted">{device}</span>
    </p>
  );
}
