import Link from "next/link";
import type { ComponentProps } from "react";

/** A link to a page of ours. Every page is drawn by the server as it stands: fetched before anybody goes there, it would be drawn for nobody. */
export const PageLink = (props: ComponentProps<typeof Link>) => <Link prefetch={false} {...props} />;
