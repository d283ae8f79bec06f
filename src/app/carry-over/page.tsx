import { CarryOver } from "@/screens/unlock/carry-over";
import { Ready } from "@/ui/ready";

export default function Page() {
  return (
    <>
      <CarryOver />
      <Ready />
    </>
  );
}
