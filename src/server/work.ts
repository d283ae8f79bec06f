import { readingsCsv } from "@/core/journal";
import { gatesOf, jobNumber, readCustomer, readJob } from "./jobs";
import { handoverPdf } from "./report/handover-pdf";
import { readShop } from "./shop";

/** What is worked out from a job's whole journal, and takes long where the job is long. */
export const WORK = {
  gates: (jobId: string) => gatesOf(jobId),
  readings: (jobId: string) => readingsCsv(readJob(jobId)),
  pdf: (jobId: string) =>
    handoverPdf({ number: jobNumber(jobId), state: readJob(jobId), shopName: readShop().name, customer: readCustomer(jobId) }),
};
