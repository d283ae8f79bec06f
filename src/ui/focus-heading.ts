/** Puts the focus on a heading, once what was just changed is drawn: what is read next begins there. */
export function focusHeading(...selectors: readonly string[]): void {
  requestAnimationFrame(() =>
    setTimeout(() => {
      const heading = selectors.map((s) => document.querySelector<HTMLElement>(s)).find(Boolean);
      heading?.setAttribute("tabindex", "-1");
      heading?.focus({ preventScroll: true });
    }),
  );
}
