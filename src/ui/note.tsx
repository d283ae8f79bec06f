import type { ComponentProps } from "react";

const TONES = {
  amber: "border-amber bg-amber-soft",
  ember: "border-ember bg-ember-soft",
  calm: "border-calm bg-calm-soft",
  live: "border-live bg-raised",
  edge: "border-edge bg-raised",
} as const;

/** Something that stands out of the text by an edge of its tone: a warning, what is proved, what comes next. */
export function Note({
  tone,
  tight = false,
  as: Tag = "div",
  className = "",
  ...rest
}: Omit<ComponentProps<"div">, "ref"> & { tone: keyof typeof TONES; tight?: boolean; as?: "div" | "p" | "section" }) {
  return <Tag className={`border-l-4 px-4 ${tight ? "py-2" : "py-3"} ${TONES[tone]} ${className}`} {...rest} />;
}
