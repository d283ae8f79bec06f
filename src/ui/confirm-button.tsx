"use client";

import { type ReactNode, useState } from "react";
import { Button } from "./button";
import { Dialog } from "./dialog";

/** A button for what cannot be taken back: it asks first. @param sure what is done, as on the button that does it. */
export function ConfirmButton({
  look,
  className = "",
  ask,
  why,
  sure,
  onSure,
  children,
}: {
  look?: "bare";
  className?: string;
  ask: string;
  why: string;
  sure: string;
  onSure: () => void;
  children: ReactNode;
}) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button {...(look ? { look } : {})} className={className} onClick={() => setOpen(true)}>
        {children}
      </Button>
      <Dialog open={open} onOpenChange={setOpen} title={ask} description={why}>
        <div className="flex flex-wrap gap-3">
          <Button
            look="ember"
            onClick={() => {
              setOpen(false);
              onSure();
            }}
          >
            {sure}
          </Button>
          <Button onClick={() => setOpen(false)}>Go on</Button>
        </div>
      </Dialog>
    </>
  );
}
