/** Brings a labelled part of the page into sight and puts the focus on it: what is done next begins there. */
export function goToPart(labelled: string): void {
  const part = document.querySelector<HTMLElement>(`[aria-label="${CSS.escape(labelled)}"]`);
  part?.setAttribute("tabindex", "-1");
  part?.scrollIntoView({ block: "start" });
  part?.focus({ preventScroll: true });
}
