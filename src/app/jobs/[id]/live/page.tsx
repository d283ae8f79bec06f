import { LiveScreen } from "@/screens/live/live";
import { Providers } from "@/screens/session/providers";
import { jobNumber } from "@/server/jobs";
import { jobPage } from "../job-page";

export const dynamic = "force-dynamic";

export default jobPage((id) => (
  <Providers>
    <LiveScreen jobId={id} number={jobNumber(id)} />
  </Providers>
));
