import { notFound } from "next/navigation";
import { LiveScreen } from "@/screens/live/live";
import { Providers } from "@/screens/session/providers";
import { jobNumber, requireJob } from "@/server/jobs";
import { NotFound } from "@/server/refusals";

export const dynamic = "force-dynamic";

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  let number: number;
  try {
    requireJob(id);
    number = jobNumber(id);
  } catch (error) {
    if (error instanceof NotFound) notFound();
    throw error;
  }
  return (
    <Providers>
      <LiveScreen jobId={id} number={number} />
    </Providers>
  );
}
