import { format } from "date-fns";
import type { At } from "@/core/journal";

/** When something happened, or began, as the bench writes it: "24 Nov 23:34". */
export const shortTime = (at: At) => format(new Date(typeof at === "string" ? at : at.from), "d MMM HH:mm");
