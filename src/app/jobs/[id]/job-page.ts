import { notFound } from "next/navigation";
import type { ReactNode } from "react";
import { requireJob } from "@/server/jobs";
import { NotFound } from "@/server/refusals";

/** A page of a job that there is; any other is not found. */
export const jobPage =
  (draw: (id: string) => ReactNode) =>
  async ({ params }: { params: Promise<{ id: string }> }) => {
    const { id } = await params;
    try {
      requireJob(id);
    } catch (error) {
      if (error instanceof NotFound) notFound();
      throw error;
    }
    return draw(id);
  };
