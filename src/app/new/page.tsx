import { NewJob } from "@/screens/new-job/new-job";
import { Providers } from "@/screens/session/providers";

export default function Page() {
  return (
    <Providers>
      <NewJob />
    </Providers>
  );
}
