import { Reckoner } from "@/screens/reckoner/reckoner";
import { Providers } from "@/screens/session/providers";
import { listJobs } from "@/server/board";

export const dynamic = "force-dynamic";

export default function Page() {
  const jobs = listJobs({}).map(({ id, number, vehicle }) => ({ id, name: `${number} · ${vehicle}` }));
  return (
    <Providers>
      <Reckoner jobs={jobs} />
    </Providers>
  );
}
