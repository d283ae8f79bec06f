import { BadInput } from "@/core/input";
import { LARGEST_JOB_FILE, parseJobFile } from "@/core/journal";
import { answer } from "@/server/http";
import { importJob } from "@/server/jobs";

export const POST = (request: Request) =>
  answer(async () => {
    if (Number(request.headers.get("content-length") ?? 0) > LARGEST_JOB_FILE)
      throw new BadInput("The job file is larger than 64 MB");
    return importJob(parseJobFile(await request.text()));
  });
