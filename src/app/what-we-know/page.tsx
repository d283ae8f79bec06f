import { Providers } from "@/screens/session/providers";
import { WhatWeKnowScreen } from "@/screens/what-we-know/what-we-know";
import { beside } from "@/server/beside";
import { boardFolded } from "@/server/board";
import { proofHistory } from "@/server/shop";

export const dynamic = "force-dynamic";

export default async function Page() {
  const behind = await boardFolded();
  return (
    <Providers>
      <WhatWeKnowScreen behind={behind} {...(await beside("known", ""))} proofs={proofHistory()} />
    </Providers>
  );
}
