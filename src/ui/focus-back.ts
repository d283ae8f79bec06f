"use client";

import { useRef } from "react";

/** For a dialog that something on the page opens: what had the focus gets it back when it closes. */
export function useFocusBack() {
  const opener = useRef<Element>(null);
  return {
    onOpenAutoFocus: () => {
      opener.current = document.activeElement;
    },
    onCloseAutoFocus: (event: Event) => {
      event.preventDefault();
      if (opener.current instanceof HTMLElement && opener.current.isConnected) opener.current.focus();
    },
  };
}
