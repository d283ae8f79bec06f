import { answer } from "@/server/http";
import { jobNumber, readCustomer, readJob } from "@/server/jobs";
import { handoverPdf } from "@/server/report/handover-pdf";
import { readShop } from "@/server/shop";

export const dynamic = "force-dynamic";

export const GET = (_request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async () => {
    const { id } = await params;
    const state = readJob(id);
    const number = jobNumber(id);
    const pdf = await handoverPdf({ number, state, shopName: readShop().name, customer: readCustomer(id) });
    return new Response(new Uint8Array(pdf), {
      headers: {
        "content-type": "application/pdf",
        "content-disposition": `attachment; filename="job-${number}-handover.pdf"`,
      },
    });
  });
