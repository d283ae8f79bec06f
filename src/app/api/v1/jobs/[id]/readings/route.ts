import { door } from "@/server/http";
import { jobNumber, requireJob } from "@/server/jobs";
import { inWorker } from "@/server/worker";

export const dynamic = "force-dynamic";

export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  door(request, async () => {
    const { id } = await params;
    requireJob(id);
    return new Response(await inWorker("readings", id), {
      headers: {
        "content-type": "text/csv; charset=utf-8",
        "content-disposition": `attachment; filename="job-${jobNumber(id)}-readings.csv"`,
      },
    });
  });
