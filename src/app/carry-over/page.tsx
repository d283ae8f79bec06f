import { Providers } from "@/screens/session/providers";
import { CarryOver } from "@/screens/unlock/carry-over";

export default function Page() {
  return (
    <Providers>
      <CarryOver />
    </Providers>
  );
}
