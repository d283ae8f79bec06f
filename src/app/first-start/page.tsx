import { redirect } from "next/navigation";
import { FirstStart } from "@/screens/people/first-start";
import { hasLead, listPeople } from "@/server/people";
import { readShop } from "@/server/shop";
import { Ready } from "@/ui/ready";

export const dynamic = "force-dynamic";

export default function Page() {
  if (hasLead()) redirect("/");
  return (
    <>
      <FirstStart known={listPeople().map((p) => p.name)} shopName={readShop().name} />
      <Ready />
    </>
  );
}
