import "@fontsource/b612/400.css";
import "@fontsource/b612/700.css";
import "@fontsource/b612-mono/400.css";
import "@fontsource/b612-mono/700.css";
import "./globals.css";
import type { Metadata, Viewport } from "next";
import { headers } from "next/headers";
import type { ReactNode } from "react";
import { NONCE_HEADER } from "@/server/page-policy";
import { EARLY_KEYS_SCRIPT } from "@/ui/early-keys";
import { EARLY_TAPS_SCRIPT } from "@/ui/early-taps";
import { THEME_SCRIPT } from "@/ui/theme-script";

/** Runs before anything is drawn. */
const BEFORE_ALL = THEME_SCRIPT + EARLY_KEYS_SCRIPT + EARLY_TAPS_SCRIPT;

export const metadata: Metadata = { title: "Pelota", description: "Finds, sizes and proves leaks in the gas paths of a vehicle" };
export const viewport: Viewport = { width: "device-width", initialScale: 1 };

export default async function RootLayout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get(NONCE_HEADER) ?? "";
  return (
    <html lang="en" suppressHydrationWarning>
      <head>
        {/* Sets the theme before the first paint, so that a dim bay stays dim; keeps keys and taps for a page that is not ready. */}
        {/* biome-ignore lint/security/noDangerouslySetInnerHtml: our own constant */}
        <script nonce={nonce} suppressHydrationWarning dangerouslySetInnerHTML={{ __html: BEFORE_ALL }} />
      </head>
      <body>{children}</body>
    </html>
  );
}
