import { Providers } from "@/screens/session/providers";
import { WhatWeKnowScreen } from "@/screens/what-we-know/what-we-know";
import { boardFolded } from "@/server/board";
import { proofHistory } from "@/server/shop";
import { inWorker } from "@/server/worker";

export const dynamic = "force-dynamic";

export default async function Page() {
  const behind = await boardFolded();
  return (
    <Providers>
      <WhatWeKnowScreen behind={behind} {...(await inWorker("known", ""))} proofs={proofHistory()} />
    </Providers>
  );
}
