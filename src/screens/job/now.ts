import { focusHeading } from "@/ui/focus-heading";

/** Where the work of a station stands on the bench. */
export const NOW = "now";

/** After something was recorded: to what is known since, or to the heading of the work. */
export const focusRecorded = (): void => focusHeading(`#${NOW} [aria-label$=", so far"] h3`, `#${NOW} h2`);
