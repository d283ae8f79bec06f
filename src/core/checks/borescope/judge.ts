import { formatNumber, toSi } from "../../units";
import type { Says } from "../claim";
import type { CheckContext } from "../context";
import { jointName, type Measure, type Verdict } from "../verdict";
import { AIR_VALVES } from "./candidates";
import type { BorescopeRecord, Port } from "./fields";
import type { Seen } from "./rows";

/** Free share of a port: the smaller of both views, where both were taken. */
const openShare = (port: Port) => Math.min(port.straight, port.side ?? port.straight);

/** Verdict on one port: blocked from either side is blocked, open only where both sides were seen. */
export function portSays(port: Port, { limits }: Pick<CheckContext, "limits">): Says {
  if (openShare(port) < 100 * limits.portBlocked.value) return "bad";
  return port.side !== undefined && openShare(port) >= 100 * limits.portOpen.value ? "good" : "open";
}

/** Judges ports by their narrowest view: the worst one decides. A blockage is a finding of its own family. */
export function judgeBorescope(record: BorescopeRecord, context: CheckContext): Verdict<Seen> {
  const { limits, layout, vehicle } = context;
  const name = jointName(layout, record.joint);
  const open = 100 * limits.portOpen.value;
  const blocked = 100 * limits.portBlocked.value;
  const measures = record.ports.map(
    (port): Measure => ({
      name: `${port.name}${port.depth ? `, tool ${formatNumber(1000 * toSi(port.depth), 0)} mm in` : ""}`,
      value: { value: openShare(port), unit: "%" },
      limit: `${formatNumber(open, 0)} % open is good, below ${formatNumber(blocked, 0)} % is blocked`,
      limitSource: limits.portOpen.source,
    }),
  );
  const base = { measures, zones: [] };
  const worst = record.ports.toSorted((a, b) => openShare(a) - openShare(b))[0] as Port;
  const share = openShare(worst);
  const after = record.when === "after-cleaning";
  if (share < blocked) {
    return {
      ...base,
      outcome: "fail",
      headline: `${name}: ${worst.name} only ${formatNumber(share, 0)} % open`,
      reasons: [
        after
          ? "cleaning did not reach it: go in from the other side, or take it off"
          : "a blockage: clean it, then look again from the same two sides",
      ],
      observation: `ports-blocked:${record.joint}`,
      tested: [record.joint],
    };
  }
  const all = AIR_VALVES.includes(record.joint) ? vehicle.airPorts : undefined;
  if (all !== undefined && record.ports.length < all)
    return {
      ...base,
      outcome: "unsure",
      headline: `${name}: ${record.ports.length} of ${all} ports graded`,
      reasons: ["what was not looked into may be the one that is blocked"],
    };
  const unseen = record.ports.filter((p) => p.side === undefined).map((p) => p.name);
  if (unseen.length > 0) {
    return {
      ...base,
      outcome: "unsure",
      headline: `Open looking straight in; not seen from the side: ${unseen.join(", ")}`,
      reasons: ["a shelf of carbon behind the first bend does not show straight on"],
    };
  }
  if (share < open) {
    return {
      ...base,
      outcome: "unsure",
      headline: `${name}: ${worst.name} ${formatNumber(share, 0)} % open, neither good nor blocked`,
      reasons: ["clean while it is open, or weigh it against what else speaks"],
    };
  }
  return {
    ...base,
    outcome: "pass",
    headline: `${name}: every port ${formatNumber(share, 0)} % open or more, from both sides`,
    reasons: [],
    observation: "ports-open",
    tested: [record.joint],
  };
}
