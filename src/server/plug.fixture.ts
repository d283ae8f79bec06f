/**
 * Writes to a job until it is killed: notes, two at a time from three clients at once, and files, each said once it is
 * answered for.
 * A line is "note <text> …" or "file <sha256>".
 */
import { v4 as uuid } from "uuid";
import { takeEntries } from "./entries-door";
import { storeFile } from "./files";

const [jobId, cycle] = process.argv.slice(2) as [string, string];
for (let n = 0; ; n++) {
  const note = (text: string) => ({
    id: uuid(),
    jobId,
    kind: "note",
    v: 1,
    at: new Date().toISOString(),
    by: "Tobin Falk",
    device: "phone",
    deviceSeq: n,
    seenSeq: 0,
    body: { text },
  });
  await Promise.all(
    ["x", "y", "z"].map(async (client) => {
      const texts = [`${cycle}.${n}${client}a`, `${cycle}.${n}${client}b`];
      await takeEntries(jobId, texts.map(note));
      process.stdout.write(`note ${texts.join(" ")}\n`);
    }),
  );
  const { sha256 } = storeFile(jobId, `log ${n}.csv`, Buffer.alloc(20_000 + 997 * n, `${cycle}.${n},`));
  process.stdout.write(`file ${sha256}\n`);
}
