import { PracticeBays } from "@/screens/practice/practice-bays";
import { Providers } from "@/screens/session/providers";

export default function Page() {
  return (
    <Providers>
      <PracticeBays />
    </Providers>
  );
}
