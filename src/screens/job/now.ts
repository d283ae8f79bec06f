import { focusHeading } from "@/ui/focus-heading";

/** Where the work of a station stands on the bench. */
export const NOW = "now";

/**
 * Called before something is recorded; what it returns, once that is in, puts the focus on what is known since, or on the
 * heading of the work. Whoever has gone on elsewhere meanwhile keeps the focus there.
 */
export function focusAfterwards(): () => void {
  const from = document.activeElement;
  return () => {
    const here = document.activeElement;
    if (here === from || here === document.body) focusHeading(`#${NOW} [aria-label$=", so far"] h3`, `#${NOW} h2`);
  };
}
