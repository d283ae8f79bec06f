import { notFound } from "next/navigation";
import { HandoverPage } from "@/screens/handover/handover-page";
import { Providers } from "@/screens/session/providers";
import { jobNumber, readCustomer, readJob } from "@/server/jobs";
import { NotFound } from "@/server/refusals";
import { readShop } from "@/server/shop";

export const dynamic = "force-dynamic";

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  let state: ReturnType<typeof readJob>;
  try {
    state = readJob(id);
  } catch (error) {
    if (error instanceof NotFound) notFound();
    throw error;
  }
  return (
    <Providers>
      <HandoverPage jobId={id} number={jobNumber(id)} state={state} shopName={readShop().name} customer={readCustomer(id)} />
    </Providers>
  );
}
