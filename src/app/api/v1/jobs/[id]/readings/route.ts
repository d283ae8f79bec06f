import { readingsCsv } from "@/core/journal";
import { answer } from "@/server/http";
import { jobNumber, readJob } from "@/server/jobs";

export const dynamic = "force-dynamic";

export const GET = (_request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async () => {
    const { id } = await params;
    return new Response(readingsCsv(readJob(id)), {
      headers: {
        "content-type": "text/csv; charset=utf-8",
        "content-disposition": `attachment; filename="job-${jobNumber(id)}-readings.csv"`,
      },
    });
  });
