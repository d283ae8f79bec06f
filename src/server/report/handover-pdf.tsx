import { Document, G, Page, Text as PdfText, Polygon, Rect, renderToBuffer, StyleSheet, Svg, View } from "@react-pdf/renderer";
import { format as formatDate } from "date-fns";
import { Children, type ComponentProps, type ReactNode } from "react";
import { intervalText, measureText } from "@/core/checks";
import {
  type Comparison,
  type HandoverBlock,
  type HandoverLine,
  handoverSheet,
  type JobState,
  type Summary,
} from "@/core/journal";
import { formatQuantity } from "@/core/units";
import { type AirMap, airMapOf, BURST_POINTS, layoutOf, mapAround } from "@/core/vehicle";
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

const day = (iso: string) => formatDate(new Date(iso), "d MMM yyyy");

function HandoverDocument({ number, state, shopName, customer }: Input) {
  const sheet = handoverSheet(
    state,
    { number, shop: shopName, customer: customer?.name },
    { day, reading: (q) => formatQuantity(q) },
  );
  const map = state.vehicle && airMapOf(layoutOf(state.vehicle));
  return (
    <Document title={sheet.subtitle} author={sheet.shop}>
      <Page size="A4" style={s.page}>
        <View style={s.head}>
          <View>
            <Text style={s.title}>{sheet.title}</Text>
            <Text style={s.muted}>{sheet.subtitle}</Text>
          </View>
          <View>
            <Text style={s.bold}>{sheet.shop}</Text>
            {sheet.customer ? <Text style={s.muted}>for {sheet.customer}</Text> : null}
          </View>
        </View>
        {sheet.blocks.map((block, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: the sheet is drawn once
          <Block key={i} block={block} map={map} />
        ))}
        <Text style={{ ...s.muted, marginTop: 10, fontSize: 8 }}>{sheet.footnote}</Text>
      </Page>
    </Document>
  );
}

function Block({ block, map }: { block: HandoverBlock; map: AirMap | undefined }) {
  if (block.kind === "notice")
    return (
      <View style={s.warn}>
        <Lines lines={block.lines} />
      </View>
    );
  if (block.kind === "finding")
    return (
      <View style={{ flexDirection: "row", gap: 10 }} wrap={false}>
        <View style={{ flex: 1 }}>
          <Text style={s.h2}>{block.title}</Text>
          <Lines lines={block.lines} />
        </View>
        {map ? <FoundOnMap map={map} joint={block.joint} /> : null}
      </View>
    );
  return (
    <View break={block.kind === "readings" && block.further === true}>
      <Text style={s.h2}>{block.title}</Text>
      {block.kind === "readings" ? block.comparisons.map((c) => <ComparisonRow key={c.key} comparison={c} />) : null}
      <Lines lines={block.lines} />
    </View>
  );
}

const LOOKS = { item: {}, muted: s.muted, bold: s.bold } as const;

const Lines = ({ lines }: { lines: readonly HandoverLine[] }) => (
  <>
    {lines.map((l) => (
      <Text key={`${l.strong} ${l.text}`} style={l.look ? LOOKS[l.look] : {}}>
        {l.look === "item" ? "• " : ""}
        {l.strong ? <Text style={s.bold}>{l.strong}</Text> : ""}
        {l.text}
      </Text>
    ))}
  </>
);

/** The part of the air map that a finding lies in; nothing where it lies at no joint of it. */
function FoundOnMap({ map, joint }: { map: AirMap; joint: string }) {
  const extract = mapAround(map, joint);
  if (!extract) return null;
  return (
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
  );
}

function ComparisonRow({ comparison }: { comparison: Comparison }) {
  return (
    <View style={s.row}>
      <Text style={{ width: 90 }}>{comparison.name}</Text>
      <Cell title="Before the repair" summary={comparison.before} none="not measured" />
      <Cell title="After the repair" summary={comparison.after} none="not repeated" />
    </View>
  );
}

function Cell({ title, summary, none }: { title: string; summary: Summary | undefined; none: string }) {
  return (
    <View style={{ flex: 1 }}>
      <Text>
        <Text style={s.muted}>{title}: </Text>
        {summary ? summary.word ? <Text style={s.bold}>{summary.word}: </Text> : "" : none}
        {summary ? summary.headline : ""}
      </Text>
      {summary?.measures.slice(0, 2).map((m) => (
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
