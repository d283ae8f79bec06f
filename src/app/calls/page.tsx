import { Calls } from "@/screens/calls/calls";
import { Providers } from "@/screens/session/providers";
import { boardFolded } from "@/server/board";
import { callsDue } from "@/server/calls";
import { nowIso } from "@/server/clock";

export const dynamic = "force-dynamic";

export default async function Page() {
  const behind = await boardFolded();
  return (
    <Providers>
      <Calls behind={behind} calls={callsDue()} today={nowIso().slice(0, 10)} />
    </Providers>
  );
}
