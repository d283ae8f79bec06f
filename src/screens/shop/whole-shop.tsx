"use client";

import { Download, Upload } from "lucide-react";
import { useRef, useState } from "react";
import { type TakenIn, takenInWords } from "@/core/journal";
import { Button } from "@/ui/button";
import { Tick } from "@/ui/choice";
import { ErrorNote } from "@/ui/field";
import { FileButton } from "@/ui/file-button";
import { sendForLines, sendJson } from "../session/api";

/** All jobs with their logs and pictures as one archive of open files, out of this shop or into it. */
export function WholeShop() {
  const [customers, setCustomers] = useState(false);
  const [error, setError] = useState("");
  const [coming, setComing] = useState<Coming>();
  const stop = useRef<AbortController>(undefined);
  const takeOut = async () => {
    setError("");
    try {
      const { ticket } = await sendJson<{ ticket: string }>("POST", "shop/archive/ticket", { customers });
      window.location.assign(`/api/v1/shop/archive?ticket=${ticket}`);
    } catch (e) {
      setError((e as Error).message);
    }
  };
  const takeIn = async (file: File) => {
    setError("");
    const ending = new AbortController();
    stop.current = ending;
    setComing({ jobs: undefined, taken: [], state: "coming" });
    const grow = (more: (was: Coming) => Partial<Coming>) => setComing((was) => was && { ...was, ...more(was) });
    try {
      await sendForLines<{ jobs: number } | TakenIn>("shop/archive", file, ending.signal, (line) =>
        grow(({ taken }) => ("state" in line ? { taken: [...taken, line] } : { jobs: line.jobs })),
      );
      grow(() => ({ state: ending.signal.aborted ? "stopped" : "done" }));
    } catch (e) {
      setError((e as Error).message);
      grow(() => ({ state: "stopped" }));
    }
  };
  return (
    <section aria-label="The whole shop as one archive" className="flex flex-col gap-3">
      <h2 className="text-xl font-bold">The whole shop as one archive</h2>
      <p className="max-w-3xl text-muted">
        Every job as a job file, with its logs and pictures, in one ZIP: for another shop, or to read with other tools. Imported,
        jobs stand as from another shop: shown whole, proving and closing nothing there; what is here already is not doubled, and
        the settings here stay as they are. To move this shop to another computer restore a backup there: it also keeps people,
        PINs and devices, and every job as it stands.
      </p>
      <Tick label="With customers' names and contacts" checked={customers} onChange={setCustomers} />
      <div className="flex flex-wrap gap-3">
        <Button onClick={() => void takeOut()}>
          <Download aria-hidden size={18} /> Export the shop
        </Button>
        <FileButton label="Archive of a shop" accept=".zip,application/zip" onFile={(file) => void takeIn(file)}>
          <Upload aria-hidden size={18} /> Import an archive
        </FileButton>
      </div>
      {error && <ErrorNote>{error}</ErrorNote>}
      {coming && <Progress {...coming} stop={() => stop.current?.abort()} />}
    </section>
  );
}

interface Coming {
  /** How many the archive holds; not said yet while it is on its way */
  readonly jobs: number | undefined;
  readonly taken: readonly TakenIn[];
  readonly state: "coming" | "done" | "stopped";
}

function Progress({ jobs, taken, state, stop }: Coming & { stop: () => void }) {
  const of = (wanted: TakenIn["state"]) => taken.filter((t) => t.state === wanted).length;
  // What went as it should is counted; what did not, or has another number now, is said.
  const told = taken.filter((t) => t.state === "refused" || t.missing > 0 || (t.number !== undefined && t.number !== t.was));
  if (jobs === undefined && state !== "coming") return null;
  return (
    <div className="flex flex-col gap-2">
      <p role="status" className={state === "done" && of("refused") === 0 ? "text-calm" : ""}>
        {jobs === undefined
          ? "Uploading…"
          : `${taken.length} of ${jobs} jobs read: ${of("new")} imported, ${of("merged")} added to, ${of("here-already")} here already, ${of("refused")} refused.`}
        {state === "stopped" && " Stopped: what came in stays, whole."}
      </p>
      {state === "coming" && (
        <div className="flex items-center gap-3">
          <progress
            className="h-3 grow accent-[var(--accent)]"
            aria-label="Jobs imported"
            max={jobs ?? 1}
            value={jobs ? taken.length : 0}
          />
          <Button onClick={stop}>Stop</Button>
        </div>
      )}
      {told.length > 0 && (
        <ul className="max-h-80 overflow-y-auto border-y border-line">
          {told.map((t) => (
            <li key={t.jobId} className={`py-2 ${t.state === "refused" ? "text-ember" : ""}`}>
              {takenInWords(t)}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
