import { notFound } from "next/navigation";
import { Bench } from "@/screens/job/bench";
import { Providers } from "@/screens/session/providers";
import { now } from "@/server/clock";
import { jobNumber, readCustomer, readEntries } from "@/server/jobs";
import { NotFound } from "@/server/refusals";
import { readShop } from "@/server/shop";

export const dynamic = "force-dynamic";

export default async function JobPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  let entries: ReturnType<typeof readEntries>;
  try {
    entries = readEntries(id);
  } catch (error) {
    if (error instanceof NotFound) notFound();
    throw error;
  }
  return (
    <Providers>
      <Bench jobId={id} number={jobNumber(id)} entries={entries} shop={readShop()} customer={readCustomer(id)} startNow={now()} />
    </Providers>
  );
}
