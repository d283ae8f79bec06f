import { Bench } from "@/screens/job/bench";
import { Providers } from "@/screens/session/providers";
import { readCustomer } from "@/server/customers";
import { experienceFor } from "@/server/experience";
import { jobNumber } from "@/server/jobs";
import { readShop } from "@/server/shop";
import { jobPage } from "./job-page";

export const dynamic = "force-dynamic";

/** The journal is not sent along: the device has it, or fetches it. */
export default jobPage((id) => (
  <Providers>
    <Bench jobId={id} number={jobNumber(id)} shop={readShop()} customer={readCustomer(id)} experience={experienceFor(id)} />
  </Providers>
));
