/** Does it once what a tap has just changed is on the screen: the hand sees an answer before the long work begins. */
export function afterPaint(act: () => void): void {
  requestAnimationFrame(() => setTimeout(act));
}
