import { door } from "@/server/http";
import { jobNumber, requireJob } from "@/server/jobs";
import { inWorker } from "@/server/worker";

export const dynamic = "force-dynamic";

export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  door(request, async () => {
    const { id } = await params;
    requireJob(id);
    return new Response(new Uint8Array(await inWorker("pdf", id)), {
      headers: {
        "content-type": "application/pdf",
        "content-disposition": `attachment; filename="job-${jobNumber(id)}-handover.pdf"`,
      },
    });
  });
