import { inSentence } from "../../sentence";
import { formatNumber } from "../../units";
import type { CheckContext } from "../context";
import { jointName, type Measure, type Verdict, voidVerdict } from "../verdict";
import { type SecondaryAirRecord, SOAPED } from "./fields";
import type { Seen } from "./rows";

/** The trap that it fell into; undefined where there is none. */
function trapOf(record: SecondaryAirRecord): string | undefined {
  const { runBy, rearmed, window, watched, oxygen, engineRunning, pumped, answeredAfter } = record;
  if (runBy === "scan-tool" && !rearmed && !pumped)
    return "the tool had not been re-armed: cycle the key or restart the engine, then command the pump again";
  if (runBy === "relay-in" && !engineRunning && !pumped)
    return "a relay left in is fed with the engine running only: start it, then ground the coil through the lamp";
  if (runBy === "scan-tool" && window !== undefined && oxygen === "no-change" && (watched ?? 0) > window)
    return `it was watched ${formatNumber((watched ?? 0) - window, 0)} s after the command timed out: the pump had stopped`;
  if (runBy === "scan-tool" && window !== undefined && oxygen !== "not-read" && (answeredAfter ?? 0) > window)
    return `the oxygen sensor was read ${formatNumber((answeredAfter ?? 0) - window, 0)} s after the command had timed out: the pump stood still. Re-arm the tool, command it again`;
  return undefined;
}

/**
 * Judges secondary air of one bank: yes or no, never a size. Air that bubbles out is a finding whatever else was read; a reaction
 * counts with the engine running, within the shop's time, and where trims are live only with a change in them.
 */
export function judgeSecondaryAir(record: SecondaryAirRecord, context: CheckContext): Verdict<Seen> {
  const { layout, limits } = context;
  const name = jointName(layout, record.joint);
  const measures: Measure[] = [
    ...(record.watched === undefined
      ? []
      : [
          {
            name: record.oxygen === "lean" ? "Oxygen sensor lean after" : "Oxygen sensor watched for",
            value: { value: record.watched, unit: "s" as const },
            limit: `within ${formatNumber(limits.airReaction.value, 0)} s`,
            limitSource: limits.airReaction.source,
          },
        ]),
    ...(record.trim === undefined
      ? []
      : [
          {
            name: "Short-term trim moved",
            value: { value: record.trim, unit: "%" as const },
            signed: true as const,
            limit: `+${formatNumber(100 * limits.airTrim.value, 0)} % or its stop`,
            limitSource: limits.airTrim.source,
          },
        ]),
  ];
  const base = { measures, zones: [] };
  const [first, ...more] = record.bubbles.filter((id) => SOAPED.includes(id) && layout.joints.some((j) => j.id === id));
  if (first && record.pumped) {
    return {
      ...base,
      outcome: "fail",
      headline: `Air bubbles out at ${[first, ...more].map((id) => inSentence(jointName(layout, id))).join(" and ")}`,
      reasons: ["what gets out here does not get to the exhaust: the code's flow is missing"],
      observation: `air-escapes:${first}`,
      ...(more.length > 0 ? { also: more.map((id): Seen => `air-escapes:${id}`) } : {}),
      tested: [...SOAPED],
      zones: [{ zone: "air-hose", state: "leaking", joint: first, why: "bubbles while the pump runs" }],
    };
  }
  const trap = trapOf(record);
  if (trap) return voidVerdict("This proves nothing", trap);
  if (!record.pumped) {
    return {
      ...base,
      outcome: "fail",
      headline: "The secondary-air pump does not run",
      reasons: ["fuse, relay and the pump's plug next, pin by pin: dead feed, or a pump seized by water"],
      observation: "air-pump-dead",
      tested: ["air-pump"],
    };
  }
  if (record.whenShut === "pulses") {
    return {
      ...base,
      outcome: "fail",
      headline: `${name} lets exhaust back while it is shut`,
      reasons: ["hot, wet exhaust ruins hose and pump: renew the valve, look into both"],
      observation: `air-back:${record.joint}`,
      tested: [record.joint],
    };
  }
  const unsure = (headline: string, reason: string): Verdict<Seen> => ({
    ...base,
    outcome: "unsure",
    headline,
    reasons: [reason],
  });
  if (record.oxygen === "not-read" || !record.engineRunning)
    return unsure(
      "The pump runs; whether its air arrives was not seen",
      "engine running and warm, sensor live: open the valve and watch it go lean within a few seconds",
    );
  const late = record.oxygen === "lean" && (record.watched ?? 0) > limits.airReaction.value;
  const still = record.oxygen === "lean" && record.trim !== undefined && record.trim < 100 * limits.airTrim.value;
  if (record.oxygen === "no-change") {
    if ((record.watched ?? 0) < limits.airReaction.value)
      return unsure(
        `Watched for ${formatNumber(record.watched ?? 0, 0)} s only`,
        `watch it for ${formatNumber(limits.airReaction.value, 0)} s or longer while the pump runs and the valve is open`,
      );
    return {
      ...base,
      outcome: "fail",
      headline: `Pump runs, ${inSentence(name)} open, and no air arrives`,
      reasons: [
        "the valve does not open, or carbon blocks the ports: hand vacuum on it, air pushed through, then the borescope from both sides",
      ],
      observation: `air-blocked:${record.joint}`,
      tested: [record.joint],
    };
  }
  if (late || still)
    return unsure(
      late ? "The sensor went lean too late to be this" : "The sensor went lean, and the trim hardly moved",
      late
        ? `a reaction comes within ${formatNumber(limits.airReaction.value, 0)} s: shut it, let it settle, open it again`
        : "some air, or another cause: yes or no is all this says; ports by borescope from both sides",
    );
  if (!record.soaped)
    return unsure(
      record.soaped === false
        ? "Air arrives; its joints were not all soaped"
        : "Air arrives; nobody said whether its joints were soaped",
      "soap pump body, seams and every joint while it runs",
    );
  if (record.whenShut === "not-felt")
    return unsure("Air arrives; the shut valve was not felt", "valve shut, engine running: no pulses and no heat at its hose");
  return {
    ...base,
    outcome: "pass",
    headline: "Secondary air arrives, nothing bubbles, and the shut valve keeps exhaust back",
    reasons: ["yes or no, never a size: only cold starts without the code prove that it is enough"],
    observation: "air-arrives",
    tested: [record.joint, ...SOAPED, "air-pump"],
  };
}
