/** Taps and text entered while the page was still being made ready. */
interface Early {
  /** Set once the page answers by itself */
  ready: boolean;
  readonly taps: HTMLElement[];
  readonly typed: Map<HTMLInputElement | HTMLTextAreaElement, string>;
}
declare global {
  interface Window {
    pelotaEarly?: Early;
  }
}

/** On what waits for the page to be ready; its look says so. */
const WAITS = "data-waits";

/**
 * Runs before anything else: a button that is tapped before the page can answer is marked and kept, and what is typed in a
 * field as well. Links, and forms that the server itself takes, work without the page.
 */
export const EARLY_TAPS_SCRIPT = `(function(){var early=window.pelotaEarly={ready:false,taps:[],typed:new Map()};addEventListener("click",function(e){if(early.ready||!e.isTrusted||!e.target.closest)return;var b=e.target.closest("button,[role=button],[role=radio],input[type=checkbox],input[type=radio]");if(!b||(b.type==="submit"&&b.form&&b.form.hasAttribute("action")))return;e.preventDefault();e.stopImmediatePropagation();b.setAttribute("${WAITS}","");if(early.taps.indexOf(b)<0)early.taps.push(b)},true);addEventListener("input",function(e){if(!early.ready&&e.isTrusted&&/^(text|search|password|datetime-local|date|textarea)$/.test(e.target.type))early.typed.set(e.target,e.target.value)},true)})();`;

/** Types and taps again what came too early, in its order, as far as it is still there. Called once the page answers. */
export function replayEarly(): void {
  const early = window.pelotaEarly;
  if (!early || early.ready) return;
  early.ready = true;
  for (const [field, value] of early.typed) if (field.isConnected) typeInto(field, value);
  early.typed.clear();
  const taps = early.taps.splice(0);
  // What was typed is drawn first: a form that is sent now sends it.
  setTimeout(() => {
    for (const button of taps) {
      button.removeAttribute(WAITS);
      if (button.isConnected) button.click();
    }
  });
}

/** As a hand does it: past the page's own bookkeeping of what stands there, which would take it for its own doing. */
function typeInto(field: HTMLInputElement | HTMLTextAreaElement, value: string): void {
  const own = field instanceof HTMLTextAreaElement ? HTMLTextAreaElement : HTMLInputElement;
  // What stands there already, as it came to life with it, would be taken for known: it is typed over nothing.
  for (const text of field.value === value ? ["", value] : [value]) {
    Object.getOwnPropertyDescriptor(own.prototype, "value")?.set?.call(field, text);
    field.dispatchEvent(new Event("input", { bubbles: true }));
  }
}
