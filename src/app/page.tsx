import { Board } from "@/screens/board/board";
import { Providers } from "@/screens/session/providers";
import { boardFolded, listJobs } from "@/server/board";
import { readShop } from "@/server/shop";

export const dynamic = "force-dynamic";

export default async function Home({ searchParams }: { searchParams: Promise<Record<string, string | string[] | undefined>> }) {
  const asked = await searchParams;
  // A value given twice counts once.
  const [q, all] = [asked.q, asked.all].map((value) => (Array.isArray(value) ? value[0] : value));
  await boardFolded();
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
