import { AwayBench } from "@/screens/away/away-bench";
import { Providers } from "@/screens/session/providers";

/** The bench of whatever job the address names, drawn from this device alone: no job and no customer stand in this page. */
export default function Page() {
  return (
    <Providers>
      <AwayBench />
    </Providers>
  );
}
