"use client";

import { ArrowLeft } from "lucide-react";
import type { ReactNode } from "react";
import { LinkButton } from "@/ui/button";
import { ThemeSwitch } from "@/ui/theme-switch";
import { PersonButton } from "./person";
import { Waiting } from "./waiting";

/** The head of a page beside the bench: back to the board, what waits to be sent, who works. */
export function PageHead({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <header className="flex flex-wrap items-center gap-3">
      <LinkButton href="/" look="bare">
        <ArrowLeft aria-hidden size={18} /> Bay board
      </LinkButton>
      <h1 className="mr-auto text-2xl font-bold">{title}</h1>
      {children}
      <Waiting />
      <PersonButton />
      <ThemeSwitch />
    </header>
  );
}
