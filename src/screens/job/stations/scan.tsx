"use client";

import { Trash2 } from "lucide-react";
import { useMemo, useState } from "react";
import { codeText, isVapourLeak } from "@/core/faults";
import { rowsOf } from "@/core/form";
import { type CodeRead, canonicalJson, codeReadForm, codesForm, withCode } from "@/core/journal";
import { Button, IconButton } from "@/ui/button";
import { DividedList } from "@/ui/divided-list";
import { ErrorNote } from "@/ui/field";
import { Form } from "@/ui/form";
import { FormFields, RowFields } from "../../form/form-field";
import { readText, ScanText, useScanText } from "../../form/scan-text";
import { AnswerOfCar } from "../practice/read-on-car";
import { StationFrame } from "../station-frame";
import { useEntryForm } from "../use-entry-form";
import { useJob } from "../use-job";
import { ObdLogView } from "./obd-import";

/** Every code of every module, with its freeze frame; unrelated ones set aside with a reason. */
export function ScanStation() {
  const { state } = useJob();
  const { codes: recorded, codesRead } = state;
  const known = useMemo(() => ({ codes: recorded }), [recorded]);
  const list = useEntryForm(codesForm, "codes", known);
  const one = useEntryForm(codeReadForm, "code", undefined);
  const rows = () => rowsOf(list.latest("codes"));
  const codes = rowsOf(list.value("codes"));
  const changed = !codesRead || canonicalJson(list.filled.record?.codes ?? null) !== canonicalJson(recorded);
  const typed = () => String(one.latest("code") ?? "").trim() !== "";
  const add = async () => {
    const { record } = one.now();
    if (!record) return one.complain();
    list.set({ codes: withCode(rows(), record) });
    one.clear();
    // The next code is of the same kind, more often than not.
    one.set({ status: record.status });
    return true;
  };
  const [text, setText] = useState("");
  const scan = useScanText(text);
  // A code that stands in the line above and was not added yet is one that was read.
  const record = async () => {
    if (typed() && !(await add())) return;
    const monitors = (scan.report?.monitors ?? []).map((body) => ({ kind: "monitor" as const, body }));
    if (await list.submit((body) => [{ kind: "codes", body }, ...monitors])) setText("");
  };
  const scanned = (pasted: string) => {
    setText(pasted);
    const more = readText(pasted).report?.codes ?? [];
    list.set({ codes: [...rows(), ...more.filter((f) => !rows().some((c) => c.code === f.code))] });
  };
  return (
    <StationFrame title="Scan" lead="Read every module. Set unrelated codes aside with a reason; do not chase them.">
      <AnswerOfCar of="codes" form={list} label="Read the codes on the car" />
      <Form className="grid items-start gap-4 sm:grid-cols-[10rem_1fr_auto]" onSubmit={() => void add()}>
        <FormFields of={one} names={["code"]} className="font-mono uppercase" />
        <FormFields of={one} names={["freezeFrame"]} />
        <Button type="submit" className="sm:mt-6">
          Add code
        </Button>
        <div className="sm:col-span-3">
          <FormFields of={one} names={["status"]} />
        </div>
      </Form>
      {codes.length > 0 && (
        <DividedList>
          {codes.map((row, i) => (
            <CodeLine
              key={String(row.code)}
              list={list}
              index={i}
              remove={() => list.set({ codes: rows().filter((c) => c.code !== row.code) })}
            />
          ))}
        </DividedList>
      )}
      <ScanText text={text} onText={scanned} read={scan} />
      {scan.report?.log && <ObdLogView log={scan.report.log} />}
      {list.error && <ErrorNote>{list.error}</ErrorNote>}
      <div className="flex flex-wrap items-center gap-3">
        <Button look="primary" disabled={list.busy || (!changed && !typed())} onClick={() => void record()}>
          {codes.length === 0 && !typed() ? "Record: no codes" : "Record the codes"}
        </Button>
        {!changed && <p className="text-muted">Recorded.</p>}
      </div>
    </StationFrame>
  );
}

type List = ReturnType<typeof useEntryForm<object, { readonly codes: readonly CodeRead[] }, "codes">>;

/** One code as it was read, and what to do with it. */
function CodeLine({ list, index, remove }: { list: Omit<List, "submit">; index: number; remove: () => void }) {
  const row = rowsOf(list.value("codes"))[index] ?? {};
  const code = String(row.code);
  const own = useJob().state.ownCodes.find((o) => o.code === code.toUpperCase());
  const { status, freezeFrame, asideReason } = row as Partial<CodeRead>;
  return (
    <li className="grid items-center gap-x-4 gap-y-1 py-2 sm:grid-cols-[6rem_1fr_16rem_auto]">
      <span className={`font-mono text-xl font-bold ${asideReason ? "text-muted" : ""}`}>{code}</span>
      <span>
        {codeText(code)?.text ?? "Not in our list: look up the maker's text"}
        <span className="block text-sm text-muted">
          {status}
          {freezeFrame ? ` · ${freezeFrame}` : ""}
        </span>
        {own && <span className="block text-amber">Probably ours: {own.because}. Clear it and read again</span>}
      </span>
      <RowFields of={list} rows="codes" index={index} names={["asideReason"]} />
      {isVapourLeak(code) && (
        <div className="grid gap-3 sm:order-last sm:col-span-4 sm:grid-cols-2">
          <RowFields of={list} rows="codes" index={index} names={["criteria.leak", "criteria.text"]} />
        </div>
      )}
      <IconButton label={`Remove ${code}`} onClick={remove}>
        <Trash2 aria-hidden size={18} />
      </IconButton>
    </li>
  );
}
