import type { ComponentProps } from "react";

/** A list whose rows are told apart by a line. @param open it has no line at its ends. */
export function DividedList({
  as: Tag = "ul",
  open = false,
  className = "",
  ...rest
}: Omit<ComponentProps<"ul">, "ref"> & { as?: "ul" | "ol" | "div"; open?: boolean }) {
  return (
    <Tag
      className={`flex flex-col divide-y divide-line ${open ? "" : "border-y border-line"} ${className}`}
      {...(rest as object)}
    />
  );
}
