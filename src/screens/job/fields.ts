import { typedQuantity as typedAgain } from "@/core/form";
import type { Quantity } from "@/core/units";

/** How a recorded reading stands in a field when it is edited again; empty where there is none. */
export const typedQuantity = (q: Quantity | undefined): string => (q ? typedAgain(q) : "");
