import { QuickStartForm } from "@/screens/new-job/quick-start";
import { Providers } from "@/screens/session/providers";

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string | string[] | undefined>> }) {
  const { check } = await searchParams;
  return (
    <Providers>
      <QuickStartForm check={typeof check === "string" ? check : ""} />
    </Providers>
  );
}
