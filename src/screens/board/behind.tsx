import { Note } from "@/ui/note";
/** Says where a page that is folded from all journals is behind with some of them. */
export function Behind({ jobs }: { jobs: number }) {
  if (jobs === 0) return null;
  return (
    <Note role="status" tone="amber" as="p" tight>
      {jobs === 1 ? "One job has" : `${jobs} jobs have`} new entries that this page does not show yet. Open it again in a moment;
      if that does not help, open the job itself.
    </Note>
  );
}
