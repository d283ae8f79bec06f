import { redirect } from "next/navigation";
import { CHECKS } from "@/core/checks";
import { FAMILY_IDS } from "@/core/faults";
import { Board } from "@/screens/board/board";
import { STRAIGHT } from "@/screens/new-job/straight";
import { Providers } from "@/screens/session/providers";
import { type BoardFilter, boardFolded, boardPage } from "@/server/board";
import { callsDue } from "@/server/calls";
import { nowIso } from "@/server/clock";
import { hasLead, listPeople } from "@/server/people";
import { readShop } from "@/server/shop";

/** Nobody asks for jobs that lay still longer than ten years, days. */
const MOST_QUIET = 3650;

export const dynamic = "force-dynamic";

export default async function Home({ searchParams }: { searchParams: Promise<Record<string, string | string[] | undefined>> }) {
  const given = await searchParams;
  // A value given twice counts once.
  const asked = (name: string) => {
    const value = given[name];
    return (Array.isArray(value) ? value[0] : value) ?? "";
  };
  const showClosed = asked("all") === "1";
  const quietDays = Math.min(MOST_QUIET, Math.max(0, Number(asked("quiet")) || 0));
  const due = asked("due") === "1";
  const today = nowIso().slice(0, 10);
  const filter: BoardFilter = {
    search: asked("q"),
    includeClosed: showClosed || due,
    waitingOn: asked("waiting"),
    person: asked("person"),
    family: asked("family"),
    quietDays,
    ...(due ? { recheckBy: today } : {}),
  };
  // Nothing is here yet: the shop is described first.
  if (!hasLead() && listPeople().length === 0) redirect("/first-start");
  const behind = await boardFolded();
  return (
    <Providers>
      <Board
        board={boardPage(filter, Number(asked("page")) || 1)}
        asked={{
          q: asked("q"),
          all: showClosed ? "1" : "",
          waiting: asked("waiting"),
          person: asked("person"),
          family: asked("family"),
          quiet: quietDays > 0 ? String(quietDays) : "",
          due: due ? "1" : "",
        }}
        people={listPeople().map((p) => p.name)}
        families={[...FAMILY_IDS]}
        instruments={STRAIGHT.map((id) => [id, CHECKS[id].name] as const)}
        shopName={readShop().name}
        callsDue={callsDue().filter((call) => call.on <= today).length}
        lead={hasLead()}
        behind={behind}
      />
    </Providers>
  );
}
