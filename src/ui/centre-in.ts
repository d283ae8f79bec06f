/**
 * Scrolls a row sideways so that one of its items stands in the middle; the page and the focus stay where they are. As the
 * `ref` of the item that matters it does so whenever that becomes another one.
 */
export function centreIn(item: HTMLElement | null): void {
  const row = item?.parentElement;
  if (item && row) row.scrollLeft = item.offsetLeft - row.offsetLeft - (row.clientWidth - item.clientWidth) / 2;
}
