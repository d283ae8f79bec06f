"use client";

import { type ReactNode, useLayoutEffect, useRef } from "react";

/** Fields that take nothing for a moment; the focus that was among them comes back to where it was. */
export function Locked({ when, children }: { when: boolean; children: ReactNode }) {
  const fields = useRef<HTMLFieldSetElement>(null);
  const focused = useRef<Element>(null);
  useLayoutEffect(() => {
    const here = document.activeElement;
    if (when) {
      focused.current = fields.current?.contains(here) ? here : null;
      return;
    }
    const from = focused.current;
    focused.current = null;
    if (from instanceof HTMLElement && from.isConnected && here === document.body) from.focus();
  }, [when]);
  return (
    <fieldset ref={fields} role="presentation" disabled={when} inert={when} className="contents">
      {children}
    </fieldset>
  );
}
