import { Board } from "@/screens/board/board";
import { Providers } from "@/screens/session/providers";
import { listJobs } from "@/server/jobs";
import { readShop } from "@/server/shop";

export const dynamic = "force-dynamic";

export default async function Home({ searchParams }: { searchParams: Promise<{ q?: string; all?: string }> }) {
  const { q, all } = await searchParams;
  return (
    <Providers>
      <Board
        jobs={listJobs({ search: q ?? "", includeClosed: all === "1" })}
        shopName={readShop().name}
        search={q ?? ""}
        showClosed={all === "1"}
      />
    </Providers>
  );
}
