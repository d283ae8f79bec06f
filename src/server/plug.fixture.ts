/** Appends note after note to a job and says each number once it is answered for, until it is killed. */
import { v4 as uuid } from "uuid";
import { appendEntries } from "./jobs";

const jobId = process.argv[2] as string;
for (let n = 0; n < 100_000; n++) {
  const envelope = { id: uuid(), jobId, kind: "note", v: 1, at: new Date().toISOString(), by: "Tobin Falk" };
  appendEntries(jobId, { ...envelope, device: "phone", deviceSeq: n, seenSeq: 0, body: { text: `note ${n}` } });
  process.stdout.write(`${n}\n`);
}
