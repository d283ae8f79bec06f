import { PracticeBays } from "@/screens/practice/practice-bays";
import { Providers } from "@/screens/session/providers";
import { playedCases } from "@/server/practice";

export const dynamic = "force-dynamic";

export default function Page() {
  return (
    <Providers>
      <PracticeBays played={playedCases()} />
    </Providers>
  );
}
