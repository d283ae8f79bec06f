"use client";

import { Button, LinkButton } from "@/ui/button";
import { Ready } from "@/ui/ready";

/** Something on the page broke: what is kept, and what to do. */
export default function ErrorPage({ reset }: { error: Error; reset: () => void }) {
  return (
    <main className="mx-auto flex max-w-xl flex-col gap-4 p-8">
      <h1 className="text-2xl font-bold">This page broke</h1>
      <p>
        Everything recorded is safe in the job's journal, and what you were typing is kept on this device. Try again; if it breaks
        once more, go back to the bay board and open the job anew.
      </p>
      <div className="flex gap-3">
        <Button look="primary" onClick={reset}>
          Try again
        </Button>
        <LinkButton href="/">Bay board</LinkButton>
      </div>
      <Ready />
    </main>
  );
}
