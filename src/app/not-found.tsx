import { LinkButton } from "@/ui/button";

/** No such page or job here. */
export default function NotFoundPage() {
  return (
    <main className="mx-auto flex max-w-xl flex-col gap-4 p-8">
      <h1 className="text-2xl font-bold">Nothing here</h1>
      <p>This job or page is not on this server. It may be in another shop's database: import its job file to see it here.</p>
      <div>
        <LinkButton href="/" look="primary">
          Bay board
        </LinkButton>
      </div>
    </main>
  );
}
