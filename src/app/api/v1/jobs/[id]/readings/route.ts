import { readingsCsv } from "@/core/journal";
import { answer } from "@/server/http";
import { readJob } from "@/server/jobs";

export const dynamic = "force-dynamic";

export const GET = (_request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async () => {
    const job = readJob((await params).id);
    return new Response(readingsCsv(job), {
      headers: {
        "content-type": "text/csv; charset=utf-8",
        "content-disposition": `attachment; filename="job-${job.number}-readings.csv"`,
      },
    });
  });
