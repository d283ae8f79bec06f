"use client";

import { X } from "lucide-react";
import { Dialog as Radix } from "radix-ui";
import type { ReactNode } from "react";
import { useFocusBack } from "./focus-back";

/** A sheet over the page: title, content, close. Focus stays inside, Escape closes. */
export function Dialog({
  open,
  onOpenChange,
  title,
  description,
  wide = false,
  children,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  title: string;
  description?: string;
  /** As wide as the screen has room for */
  wide?: boolean;
  children: ReactNode;
}) {
  const focusBack = useFocusBack();
  return (
    <Radix.Root open={open} onOpenChange={onOpenChange}>
      <Radix.Portal>
        {/* Not Radix's own: that one sets a property of the whole page, and every element's style is worked out anew. */}
        <div data-backdrop className="fixed inset-0 z-40 bg-black/60" />
        <Radix.Content
          className={`fixed inset-x-0 bottom-0 z-50 max-h-[88dvh] overflow-y-auto rounded-t-xl bg-panel p-5 text-ink sm:inset-auto sm:top-1/2 sm:left-1/2 sm:max-w-[94vw] sm:-translate-x-1/2 sm:-translate-y-1/2 sm:rounded-xl ${wide ? "sm:w-[80rem]" : "sm:w-[34rem]"}`}
          {...(description ? {} : { "aria-describedby": undefined })}
          {...focusBack}
        >
          <div className="mb-3 flex items-start justify-between gap-3">
            <Radix.Title className="text-xl font-bold">{title}</Radix.Title>
            <Radix.Close
              aria-label="Close"
              className="-mt-2 -mr-2 inline-flex size-11 cursor-pointer items-center justify-center rounded-md hover:bg-raised"
            >
              <X aria-hidden size={20} />
            </Radix.Close>
          </div>
          {description && <Radix.Description className="mb-3 text-muted">{description}</Radix.Description>}
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
