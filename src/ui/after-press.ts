let pressed = false;

if (typeof document !== "undefined") {
  const on = (name: string, is: boolean) => document.addEventListener(name, () => (pressed = is), { capture: true });
  on("pointerdown", true);
  on("pointerup", false);
  on("pointercancel", false);
}

/**
 * Does something now, or once the finger is up and its key has had it: a complaint that appears as a field is left would move
 * the key away that it is left for.
 */
export function afterPress(work: () => void): void {
  if (!pressed) {
    work();
    return;
  }
  const over = new AbortController();
  const then = () => {
    over.abort();
    setTimeout(work);
  };
  for (const name of ["pointerup", "pointercancel"]) document.addEventListener(name, then, { signal: over.signal });
}
