import { atomOf, ofEngine, saysOf } from "../claim";
import type { CheckKind } from "../contract";
import { type BackPressure, backPressureFields, backPressureForm } from "./fields";
import { judgeBackPressure } from "./judge";
import { rows, type Seen } from "./rows";

export * from "./fields";
export * from "./judge";

const SENSOR_OUT = "oxygen sensor before the catalyst out";

export const backPressure: CheckKind<BackPressure, unknown, Seen> = {
  id: "back-pressure",
  name: "Exhaust back pressure",
  words: { pass: "Works", fail: "Faulty" },
  aim: "Gauge in place of the oxygen sensor: is the exhaust restricted",
  engine: "warm-running",
  tool: "gauge",
  role: "measures",
  takesOff: [SENSOR_OUT],
  shelf: "running",
  families: ["engine", "boost", "filter"],
  rows,
  candidates: () => [
    {
      name: "Exhaust back pressure",
      minutes: 16,
      penalty: 0.85,
      outcomes: ["back-high", "back-normal"],
      why: "one gauge where the sensor sits",
    },
  ],
  claims: (_record, verdict, { layout }) =>
    verdict.outcome === "void"
      ? []
      : [ofEngine(layout, atomOf("pressure", "exhaust"), "exhaust back pressure", saysOf(verdict.outcome))],
  irrelevant: {
    idle: "next to none at idle is usual: the raised speed decides",
  },
  fields: backPressureFields,
  form: backPressureForm,
  plan: ({ limits }) => ({
    steps: [
      {
        text: "Exhaust cool. Sensor before the catalyst out, gauge with its cooling hose in; the sensor's plug tied up, clear of heat.",
        caution: "hot-exhaust",
      },
      {
        text: `Engine warm: at idle at most ${Math.round(limits.backIdle.value / 100) / 10} kPa, held at 2500 rpm at most ${Math.round(limits.backRaised.value / 100) / 10} kPa.`,
        caution: "running-engine",
      },
      { text: "Snap the throttle and read the top." },
      { text: "Unplugged, the sensor sets a code of our own: clear it and read again afterwards." },
    ],
    displaces: [{ what: SENSOR_OUT }],
    cautions: ["hot-exhaust", "running-engine"],
    clocks: [],
  }),
  judge: judgeBackPressure,
};
