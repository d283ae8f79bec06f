import { LARGEST_JOB_FILE } from "@/core/journal";
import { tellChanged } from "@/server/changes";
import { doorFor } from "@/server/http";
import { loggedOf } from "@/server/security-log";
import { receiveBytes } from "@/server/upload";
import { inWorker } from "@/server/worker";

export const POST = (request: Request) =>
  doorFor("import-job", request, async (who) => {
    const bytes = await receiveBytes(request, LARGEST_JOB_FILE, "The job file is larger than 64 MB");
    const job = await inWorker("imported", JSON.stringify({ by: who?.name ?? "", file: new TextDecoder().decode(bytes) }));
    tellChanged(job.id);
    loggedOf(request, "job-imported", who, `Job ${job.number}, ${job.added} entries`);
    return job;
  });
