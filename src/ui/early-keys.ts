/** A key pressed while the page was still being made ready. */
interface EarlyKey {
  readonly key: string;
  readonly path: string;
  /** ms on the page's own clock */
  readonly at: number;
}
declare global {
  interface Window {
    pelotaEarlyKeys?: EarlyKey[];
  }
}

/** Runs before anything else: keeps the last keys that were pressed outside fields, for a page that is not ready for them. */
export const EARLY_KEYS_SCRIPT = `window.pelotaEarlyKeys=[];addEventListener("keydown",function(e){var k=window.pelotaEarlyKeys;if(e.isTrusted&&!e.ctrlKey&&!e.metaKey&&!e.altKey&&!(e.target.closest&&e.target.closest("input,textarea,select,[role=dialog]"))){k.push({key:e.key,path:location.pathname,at:performance.now()});k.splice(0,k.length-3)}});`;

/** Older keys are not meant for what is there now, ms. */
const FORGOTTEN = 10_000;

/** Keys pressed on this page before it was ready, oldest first; each is handed out once. */
export function takeEarlyKeys(): string[] {
  const kept = window.pelotaEarlyKeys?.splice(0) ?? [];
  return kept.filter(({ path, at }) => path === location.pathname && performance.now() - at < FORGOTTEN).map(({ key }) => key);
}
