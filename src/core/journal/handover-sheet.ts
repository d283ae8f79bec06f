import { findingPlaces } from "../faults";
import type { Quantity } from "../units";
import { layoutOf, vehicleName } from "../vehicle";
import { type Comparison, findingSurety, handoverOf } from "./handover";
import type { JobState } from "./state";

/** A line of the page: what stands first in bold, and what follows. */
export interface HandoverLine {
  readonly text: string;
  readonly strong?: string;
  readonly look?: "item" | "muted" | "bold";
}

/** Blocks of the handover page, in its order; drawn on the screen and on paper. */
export type HandoverBlock =
  /** Must not be overlooked */
  | { readonly kind: "notice"; readonly lines: readonly HandoverLine[] }
  | { readonly kind: "part"; readonly title: string; readonly lines: readonly HandoverLine[] }
  | {
      readonly kind: "readings";
      readonly title: string;
      readonly comparisons: readonly Comparison[];
      readonly lines: readonly HandoverLine[];
      /** On a sheet of its own */
      readonly further?: true;
    }
  | {
      readonly kind: "finding";
      readonly title: string;
      readonly key: string;
      readonly joint: string;
      readonly size?: Quantity | undefined;
      readonly lines: readonly HandoverLine[];
      readonly pictures: readonly string[];
    };

export interface HandoverSheet {
  readonly title: string;
  readonly subtitle: string;
  readonly shop: string;
  readonly customer?: string;
  readonly blocks: readonly HandoverBlock[];
  readonly footnote: string;
}

/** How dates and readings are written where it is read. */
export interface HandoverWriting {
  /** A day or a moment, ISO 8601 */
  day(iso: string): string;
  reading(q: Quantity): string;
}

/** Readings that stand on the first sheet; the rest follow on a second. */
const ON_FIRST_SHEET = 3;

const line = (text: string, more: Omit<HandoverLine, "text"> = {}): HandoverLine => ({ text, ...more });
const items = (texts: readonly string[]) => texts.map((text) => line(text, { look: "item" }));

/** The customer's page, worked out once for screen, print and PDF; what has nothing to say is left out. */
export function handoverSheet(
  job: JobState,
  { number, shop, customer }: { readonly number: number; readonly shop: string; readonly customer?: string | undefined },
  { day, reading }: HandoverWriting,
): HandoverSheet {
  const page = handoverOf(job);
  const { vehicle, handover, practice, complaint, story } = job;
  const places = vehicle ? findingPlaces(layoutOf(vehicle), vehicle) : [];
  const part = (title: string, lines: readonly HandoverLine[]): HandoverBlock[] =>
    lines.length > 0 ? [{ kind: "part", title, lines }] : [];
  const notice = (...lines: readonly HandoverLine[]): HandoverBlock[] => (lines.length > 0 ? [{ kind: "notice", lines }] : []);
  const { inspected } = page;
  const further = page.comparisons.slice(ON_FIRST_SHEET);
  return {
    title: vehicle ? [vehicleName(vehicle), vehicle.registration].filter(Boolean).join(" · ") : "Vehicle",
    subtitle: [
      `${practice ? "Practice" : "Job"} ${number}`,
      handover ? `handed over ${day(handover.at)} by ${handover.by}` : "not handed over yet",
      ...(vehicle?.odometer ? [reading(vehicle.odometer)] : []),
    ].join(" · "),
    shop,
    ...(customer ? { customer } : {}),
    blocks: [
      ...(practice
        ? notice(line(` Case ${practice}, a simulated car: this page is about no real one.`, { strong: "Practice." }))
        : []),
      ...(handover?.conditional
        ? notice(
            page.unproved.length === 0 && page.onRoad.length > 0
              ? line(" What a shop can measure is proved; driving shows the rest.", {
                  strong: "Handed over with an open condition.",
                })
              : line(" The proof is not complete: see what is left open.", { strong: "Conditional handover." }),
          )
        : []),
      ...part("Complaint", [line(story?.complaint ?? "Not written down.")]),
      ...part("How far it is proved", [line(page.proved)]),
      ...notice(
        ...page.temporary.map((t) =>
          line(`${t.limit && ` (only ${t.limit})`}: ${t.what}`, {
            strong: `Temporary${t.recheck && `, re-check by ${day(t.recheck)}`}`,
          }),
        ),
      ),
      ...(inspected
        ? part("Inspected", [
            line(`Tight: ${inspected.tight.join(", ") || "nothing was proved so"}.`),
            ...(inspected.leaking.length > 0 ? [line(`Leaking: ${inspected.leaking.join(", ")}.`, { look: "bold" })] : []),
            ...(inspected.reached.length > 0
              ? [line(`Reached, but not proved while another place leaked: ${inspected.reached.join(", ")}.`, { look: "muted" })]
              : []),
            line(`Not reached, so not known: ${inspected.notReached.join(", ") || "nothing"}.`, { look: "muted" }),
          ])
        : []),
      {
        kind: "readings",
        title: "Measured before and after",
        comparisons: page.comparisons.slice(0, ON_FIRST_SHEET),
        lines: [
          ...(page.comparisons.length === 0 ? [line("No usable reading yet.")] : []),
          ...[...page.codes, page.monitor].flatMap((text) => (text === undefined ? [] : [line(text)])),
        ],
      },
      ...job.findings.map(({ entry, body }): HandoverBlock => {
        const size = body.size ? ` (equivalent hole ≈ ${reading(body.size)})` : "";
        return {
          kind: "finding",
          title: "Found",
          key: entry,
          joint: body.joint,
          size: body.size,
          lines: [
            line(`${size}: ${body.what}`, { strong: places.find((p) => p.id === body.joint)?.name ?? "Another place" }),
            line(findingSurety(body), { look: "muted" }),
          ],
          pictures: (body.pictures ?? []).slice(0, 2),
        };
      }),
      ...part("Done", [
        ...items(page.done),
        ...(complaint
          ? [line(`The complaint was tried again (${complaint.how}): ${complaint.result === "gone" ? "gone" : "it remains"}.`)]
          : []),
      ]),
      ...part("Changed for good", items(page.modified)),
      ...part("Left open", [
        ...page.setAside.map((s) =>
          line(
            [
              ` left as is: ${s.reason}`,
              s.risk && `Risk: ${s.risk}`,
              s.decision && `Decided: ${s.decision}`,
              s.date && `Re-check by ${day(s.date)}`,
            ]
              .filter(Boolean)
              .join(". "),
            { strong: s.what, look: "item" },
          ),
        ),
        ...items(page.unproved),
      ]),
      ...part("Open conditions, shown by driving", items(page.onRoad)),
      ...(handover
        ? part("To know and to watch", [
            line(handover.summary),
            ...(handover.watch ? [line(`Watch: ${handover.watch}`)] : []),
            ...(handover.comeBack ? [line(`Come back: ${handover.comeBack}`)] : []),
            ...(handover.call ? [line(`We ask how it held on ${day(handover.call)}.`)] : []),
          ])
        : []),
      ...part(
        "Since then",
        page.outcomes.map((o) => line(`${day(o.at)}: ${o.says}`)),
      ),
      ...(further.length > 0
        ? [{ kind: "readings" as const, title: "Further readings", comparisons: further, lines: [], further: true as const }]
        : []),
    ],
    footnote:
      "Leak sizes are equivalent sharp-edged holes (discharge coefficient 0.61); intervals hold the truth in 95 of 100 cases.",
  };
}
