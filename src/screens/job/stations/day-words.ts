import { differenceInCalendarDays, format } from "date-fns";

/** A moment as it is said in the workshop: "06:40 tomorrow", "14:00 on Fri 27 Nov". */
export function dayWords(ms: number, now = Date.now()): string {
  const days = differenceInCalendarDays(ms, now);
  const time = format(ms, "HH:mm");
  if (days === 0) return `${time} today`;
  if (days === 1) return `${time} tomorrow`;
  return `${time} on ${format(ms, "EEE d MMM")}`;
}
