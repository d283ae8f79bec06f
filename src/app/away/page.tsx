import { Away } from "@/screens/away/away";
import { Providers } from "@/screens/session/providers";

/** Page in the board's place while the server is offline. */
export default function Page() {
  return (
    <Providers>
      <Away />
    </Providers>
  );
}
