import { LARGEST_JOB_FILE, parseJobFile } from "@/core/journal";
import { door } from "@/server/http";
import { importJob } from "@/server/jobs";
import { receiveBytes } from "@/server/upload";

export const POST = (request: Request) =>
  door(request, async () => {
    const bytes = await receiveBytes(request, LARGEST_JOB_FILE, "The job file is larger than 64 MB");
    return importJob(parseJobFile(new TextDecoder().decode(bytes)));
  });
