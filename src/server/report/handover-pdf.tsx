import { Document, G, Page, Text as PdfText, Polygon, Rect, renderToBuffer, StyleSheet, Svg, View } from "@react-pdf/renderer";
import { Children, type ComponentProps, type ReactNode } from "react";
import { intervalText, measureText } from "@/core/checks";
import { findingPlaces } from "@/core/faults";
import { type Comparison, findingSurety, handoverOf, type JobState, ON_FIRST_SHEET, type Summary } from "@/core/journal";
import { formatQuantity } from "@/core/units";
import { airMapOf, BURST_POINTS, layoutOf, mapAround, vehicleName } from "@/core/vehicle";
import { FAMILIES, printable } from "./fonts";

const s = StyleSheet.create({
  page: { fontFamily: FAMILIES, fontSize: 10, padding: 40, lineHeight: 1.4, color: "#111" },
  title: { fontSize: 16, fontWeight: 700, lineHeight: 1.3 },
  head: { flexDirection: "row", justifyContent: "space-between", borderBottomWidth: 1.5, paddingBottom: 4, marginBottom: 8 },
  h2: { fontSize: 12, fontWeight: 700, lineHeight: 1.3, marginTop: 10, marginBottom: 2 },
  muted: { color: "#555" },
  row: { flexDirection: "row", borderBottomWidth: 0.5, borderColor: "#999", paddingVertical: 3, gap: 8 },
  bold: { fontWeight: 700 },
  warn: { borderLeftWidth: 3, borderColor: "#a66a00", paddingLeft: 6, marginBottom: 4 },
});

/** A text of which every letter can be drawn, whoever typed it. */
const Text = ({ children, ...rest }: ComponentProps<typeof PdfText> & { children?: ReactNode }) => (
  <PdfText {...rest}>{Children.map(children, (child) => (typeof child === "string" ? printable(child) : child))}</PdfText>
);

interface Input {
  readonly number: number;
  readonly state: JobState;
  readonly shopName: string;
  readonly customer: { readonly name: string } | undefined;
}

function HandoverDocument({ number, state, shopName, customer }: Input) {
  const page = handoverOf(state);
  const v = state.vehicle;
  const map = v ? airMapOf(layoutOf(v)) : undefined;
  const places = v ? findingPlaces(layoutOf(v), v) : [];
  const day = (iso: string) => iso.slice(0, 10);
  return (
    <Document title={`${state.practice ? "Practice" : "Job"} ${number}`} author={shopName}>
      <Page size="A4" style={s.page}>
        <View style={s.head}>
          <View>
            <Text style={s.title}>{v ? [vehicleName(v), v.registration].filter(Boolean).join(" · ") : "Vehicle"}</Text>
            <Text style={s.muted}>
              {state.practice ? "Practice" : "Job"} {number}
              {state.handover ? ` · handed over ${day(state.handover.at)} by ${state.handover.by}` : " · not handed over yet"}
            </Text>
          </View>
          <View>
            <Text style={s.bold}>{shopName}</Text>
            {customer?.name ? <Text style={s.muted}>for {customer.name}</Text> : null}
          </View>
        </View>
        {state.practice ? (
          <View style={s.warn}>
            <Text style={s.bold}>Practice, case {state.practice}: a simulated car. This page is about no real one.</Text>
          </View>
        ) : null}
        {state.handover?.conditional ? (
          <View style={s.warn}>
            <Text style={s.bold}>Conditional handover: the proof is not complete, see what is left open.</Text>
          </View>
        ) : null}
        <Text style={s.h2}>Complaint</Text>
        <Text>{state.story?.complaint ?? "Not written down."}</Text>
        <Text style={s.h2}>How far it is proved</Text>
        <Text>{page.proved}</Text>
        {page.temporary.map((t) => (
          <View key={t.what} style={s.warn}>
            <Text>
              <Text style={s.bold}>Temporary{t.recheck ? `, to be looked at again by ${t.recheck}` : ""}</Text>
              {t.limit ? ` (only ${t.limit})` : ""}: {t.what}
            </Text>
          </View>
        ))}
        {page.inspected ? (
          <View>
            <Text style={s.h2}>Inspected</Text>
            <Text>Tight: {page.inspected.tight.join(", ") || "nothing was proved so"}.</Text>
            {page.inspected.leaking.length > 0 ? <Text style={s.bold}>Leaking: {page.inspected.leaking.join(", ")}.</Text> : null}
            <Text style={s.muted}>Not reached, so not known: {page.inspected.notReached.join(", ") || "nothing"}.</Text>
          </View>
        ) : null}
        <Text style={s.h2}>Measured before and after</Text>
        {page.comparisons.slice(0, ON_FIRST_SHEET).map((c) => (
          <ComparisonRow key={c.key} comparison={c} />
        ))}
        {page.comparisons.length === 0 ? <Text>No check told anything yet.</Text> : null}
        {page.codes.map((line) => (
          <Text key={line}>{line}</Text>
        ))}
        {page.monitor ? <Text>{page.monitor}</Text> : null}
        {state.findings.map((f) => {
          const extract = map && mapAround(map, f.body.joint);
          return (
            <View key={f.entry} style={{ flexDirection: "row", gap: 10 }} wrap={false}>
              <View style={{ flex: 1 }}>
                <Text style={s.h2}>Found</Text>
                <Text>
                  <Text style={s.bold}>{places.find((p) => p.id === f.body.joint)?.name ?? "Another place"}</Text>
                  {f.body.size ? ` (equivalent hole about ${formatQuantity(f.body.size)})` : ""}: {f.body.what}
                </Text>
                <Text style={s.muted}>{findingSurety(f.body)}</Text>
              </View>
              {map && extract ? (
                <Svg
                  viewBox={`${extract.view.x} ${extract.view.y} ${extract.view.w} ${extract.view.h}`}
                  style={{ width: 210, height: 95, marginTop: 8 }}
                >
                  {map.zones.flatMap((z) =>
                    z.boxes.map((b) => (
                      <Rect
                        key={`${z.zone} ${b.x} ${b.y}`}
                        x={b.x}
                        y={b.y}
                        width={b.w}
                        height={b.h}
                        fill="#eef1ee"
                        stroke="#555"
                        strokeWidth={1.5}
                      />
                    )),
                  )}
                  {extract.zones.map((z) => (
                    <Text key={z.id} x={z.x} y={z.y} style={{ fontSize: z.size, fontFamily: FAMILIES }} textAnchor="middle">
                      {z.text}
                    </Text>
                  ))}
                  <G transform={`translate(${extract.at.x} ${extract.at.y})`}>
                    <Polygon points={BURST_POINTS} fill="#c23c10" />
                  </G>
                  <Text
                    x={extract.name.x}
                    y={extract.name.y}
                    style={{ fontSize: extract.name.size, fontFamily: FAMILIES, fontWeight: 700 }}
                    fill="#c23c10"
                    textAnchor="middle"
                  >
                    {extract.name.text}
                  </Text>
                </Svg>
              ) : null}
            </View>
          );
        })}
        {page.done.length > 0 ? <Text style={s.h2}>Done</Text> : null}
        {page.done.map((line) => (
          <Text key={line}>• {line}</Text>
        ))}
        {state.complaint ? (
          <Text>
            The complaint was tried again ({state.complaint.how}): {state.complaint.result === "gone" ? "gone" : "it remains"}.
          </Text>
        ) : null}
        {page.modified.length > 0 ? <Text style={s.h2}>Changed for good</Text> : null}
        {page.modified.map((m) => (
          <Text key={m}>• {m}</Text>
        ))}
        {page.setAside.length + page.unproved.length > 0 ? <Text style={s.h2}>Left open</Text> : null}
        {page.setAside.map((a) => (
          <Text key={a.what}>
            • {a.what} left as it is: {a.reason}
            {a.risk ? `. Risk: ${a.risk}` : ""}
            {a.decision ? `. Decided: ${a.decision}` : ""}
            {a.date ? `. Looked at again by ${a.date}` : ""}
          </Text>
        ))}
        {page.unproved.map((u) => (
          <Text key={u}>• {u}</Text>
        ))}
        {state.handover ? (
          <View>
            <Text style={s.h2}>To know and to watch</Text>
            <Text>{state.handover.summary}</Text>
            {state.handover.watch ? <Text>Watch: {state.handover.watch}</Text> : null}
            {state.handover.comeBack ? <Text>Come back: {state.handover.comeBack}</Text> : null}
            {state.handover.call ? <Text>We ask how it held on {state.handover.call}.</Text> : null}
          </View>
        ) : null}
        {page.outcomes.length > 0 ? <Text style={s.h2}>Since then</Text> : null}
        {page.outcomes.map((o) => (
          <Text key={`${o.at} ${o.says}`}>
            {day(o.at)}: {o.says}
          </Text>
        ))}
        {page.comparisons.length > ON_FIRST_SHEET ? (
          <View break>
            <Text style={s.h2}>Further readings</Text>
            {page.comparisons.slice(ON_FIRST_SHEET).map((c) => (
              <ComparisonRow key={c.key} comparison={c} />
            ))}
          </View>
        ) : null}
        <Text style={{ ...s.muted, marginTop: 10, fontSize: 8 }}>
          Leak sizes are equivalent sharp-edged holes (discharge coefficient 0.61); intervals hold the truth in 95 of 100 cases.
        </Text>
      </Page>
    </Document>
  );
}

function ComparisonRow({ comparison }: { comparison: Comparison }) {
  return (
    <View style={s.row}>
      <Text style={{ width: 90 }}>{comparison.name}</Text>
      <Cell title="Before" summary={comparison.before} none="not measured" />
      <Cell title="After" summary={comparison.after} none="not repeated" />
    </View>
  );
}

function Cell({ title, summary, none }: { title: string; summary: Summary | undefined; none: string }) {
  return (
    <View style={{ flex: 1 }}>
      <Text>
        <Text style={s.muted}>{title}: </Text>
        {summary ? summary.word ? <Text style={s.bold}>{summary.word}. </Text> : "" : none}
        {summary ? summary.headline : ""}
      </Text>
      {summary?.measures.slice(0, 3).map((m) => (
        <Text key={m.name} style={s.muted}>
          {m.name}: {measureText(m)}
          {intervalText(m)}
        </Text>
      ))}
    </View>
  );
}

/** The handover page as a PDF, one A4 sheet for an ordinary job. */
export const handoverPdf = (input: Input): Promise<Buffer> => renderToBuffer(<HandoverDocument {...input} />);
