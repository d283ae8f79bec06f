import { Unlock } from "@/screens/unlock/unlock";
import { Ready } from "@/ui/ready";

export default function Page() {
  return (
    <>
      <Unlock />
      <Ready />
    </>
  );
}
