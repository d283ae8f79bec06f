import { notFound } from "next/navigation";
import { OpenBench } from "@/screens/job/open-bench";
import { Providers } from "@/screens/session/providers";
import { jobNumber, readCustomer, requireJob } from "@/server/jobs";
import { NotFound } from "@/server/refusals";
import { readShop } from "@/server/shop";

export const dynamic = "force-dynamic";

export default async function JobPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  try {
    requireJob(id);
  } catch (error) {
    if (error instanceof NotFound) notFound();
    throw error;
  }
  return (
    <Providers>
      <OpenBench jobId={id} number={jobNumber(id)} shop={readShop()} customer={readCustomer(id)} />
    </Providers>
  );
}
