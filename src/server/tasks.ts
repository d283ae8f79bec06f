import { parseJobFile, readingsCsv } from "@/core/journal";
import { readCustomer } from "./customers";
import { db } from "./db/open";
import { engineCardFor, learnedHere } from "./experience";
import { exportJob, importJob } from "./job-files";
import { gatesOf, jobNumber, readJob } from "./jobs";
import { whatWeKnowHere } from "./lessons";
import { handoverPdf } from "./report/handover-pdf";
import { readShop } from "./shop";

/** Tasks that take long where a job is long. */
export const TASKS = {
  engine: (jobId: string) => engineCardFor(jobId),
  known: (_all: string) => ({ known: whatWeKnowHere(), learned: learnedHere() }),
  gates: (jobId: string) => gatesOf(jobId),
  imported: (asked: string) => {
    const { by, file } = JSON.parse(asked) as { readonly by: string; readonly file: string };
    return importJob(parseJobFile(file), db(), by);
  },
  exported: (jobId: string) => JSON.stringify(exportJob(jobId), null, 1),
  readings: (jobId: string) => readingsCsv(readJob(jobId)),
  pdf: (jobId: string) =>
    handoverPdf({ number: jobNumber(jobId), state: readJob(jobId), shopName: readShop().name, customer: readCustomer(jobId) }),
};
