import { HandoverPage } from "@/screens/handover/handover-page";
import { Providers } from "@/screens/session/providers";
import { readCustomer } from "@/server/customers";
import { jobNumber } from "@/server/jobs";
import { readShop } from "@/server/shop";
import { jobPage } from "../job-page";

export const dynamic = "force-dynamic";

export default jobPage((id) => (
  <Providers>
    <HandoverPage jobId={id} number={jobNumber(id)} shop={readShop()} customer={readCustomer(id)} />
  </Providers>
));
