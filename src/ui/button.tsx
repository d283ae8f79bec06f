import type { ButtonHTMLAttributes, ReactNode } from "react";
import { PageLink } from "./page-link";

type Look = "primary" | "plain" | "ember" | "bare";

const LOOKS: Record<Look, string> = {
  primary: "bg-accent text-on-accent font-bold hover:brightness-110",
  plain: "border border-edge text-ink hover:bg-raised",
  ember: "border border-ember text-ember hover:bg-ember-soft",
  bare: "text-ink underline underline-offset-4 decoration-edge hover:decoration-ink",
};

const BASE =
  "inline-flex min-h-11 items-center justify-center gap-2 rounded-md px-4 text-base leading-tight disabled:opacity-50 disabled:cursor-not-allowed cursor-pointer";

export const buttonClass = (look: Look = "plain", more = "") => `${BASE} ${LOOKS[look]} ${more}`;

export function Button({ look = "plain", className = "", ...rest }: ButtonHTMLAttributes<HTMLButtonElement> & { look?: Look }) {
  return <button type="button" className={buttonClass(look, className)} {...rest} />;
}

export function LinkButton({
  href,
  look = "plain",
  className = "",
  children,
}: {
  href: string;
  look?: Look;
  className?: string;
  children: ReactNode;
}) {
  return (
    <PageLink href={href} className={buttonClass(look, className)}>
      {children}
    </PageLink>
  );
}

/** A square button that shows an icon only; its label is spoken and shown as a tooltip. */
export function IconButton({ label, children, ...rest }: ButtonHTMLAttributes<HTMLButtonElement> & { label: string }) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      className="inline-flex size-11 shrink-0 cursor-pointer items-center justify-center rounded-md text-ink hover:bg-raised disabled:opacity-50"
      {...rest}
    >
      {children}
    </button>
  );
}
