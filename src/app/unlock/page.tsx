import { Unlock } from "@/screens/unlock/unlock";

export default function Page() {
  return <Unlock />;
}
