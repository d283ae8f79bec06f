/** Says where a page that is folded from all journals is behind with some of them. */
export function Behind({ jobs }: { jobs: number }) {
  if (jobs === 0) return null;
  return (
    <p role="status" className="border-l-4 border-amber bg-amber-soft px-3 py-2">
      {jobs === 1 ? "One job has" : `${jobs} jobs have`} new entries that are still being read: this page does not show them yet.
      Open it again in a moment.
    </p>
  );
}
