import { atomOf, ofEngine, saysOf } from "../claim";
import type { CheckKind } from "../contract";
import { notOnDiesel, refusing } from "../unfit";
import { type GasRecord, gasFields, gasForm } from "./fields";
import { judgeExhaustGas } from "./judge";
import { rows, type Seen } from "./rows";

export * from "./extract";
export * from "./fields";
export * from "./judge";

const unfit = notOnDiesel("A diesel always runs with more air than it burns: smoke the exhaust instead.");

export const exhaustGas: CheckKind<GasRecord, unknown, Seen> = {
  id: "exhaust-gas",
  name: "Exhaust gas",
  words: { pass: "Works", fail: "Faulty" },
  aim: "Four gases at the tail: how much air there is beside the fuel, and where it may have come in",
  engine: "warm-running",
  tool: "gas-analyser",
  unfit,
  role: "measures",
  inspects: { circuit: "Exhaust before the sensor", minutes: 15, by: ["all"] },
  onlyReads: true,
  shelf: "running",
  rows,
  candidates: ({ vehicle }) =>
    vehicle.fuel === "petrol"
      ? [
          {
            name: "Exhaust gas",
            minutes: 12,
            penalty: 1,
            outcomes: ["gas-good", "gas-air-behind", "gas-lean-mixture", "gas-lean", "gas-rich", "gas-misfire"],
            why: "tells air in the exhaust from air in the mixture, nothing comes off",
          },
        ]
      : [],
  claims: ({ idle, raised }, verdict, { layout }) =>
    verdict.outcome === "void"
      ? []
      : [
          ...(idle ? [ofEngine(layout, atomOf("gas", "tail", "idle"), "exhaust gases at idle", saysOf(verdict.outcome))] : []),
          ...(raised
            ? [ofEngine(layout, atomOf("gas", "tail", "2500"), "exhaust gases at 2500 rpm", saysOf(verdict.outcome))]
            : []),
        ],
  irrelevant: {
    "idle.co": "it counts through λ; emission limits are the inspection's",
    "idle.hc": "it counts through λ",
    "idle.o2": "it counts through λ",
    "idle.ecuLambda": "it tells where excess air came in, and there is none",
    "raised.co": "it counts through λ",
    "raised.hc": "it counts through λ",
    "raised.o2": "it counts through λ",
    "raised.ecuLambda": "it tells where excess air came in, and there is none",
    loop: "it tells where excess air came in, and there is none",
  },
  fields: gasFields,
  form: gasForm,
  plan: (context) => ({
    steps: [
      {
        text: "Engine and catalyst warm: hold 2500 rpm for three minutes. Exhaust extraction on, not over the probe.",
        caution: "running-engine",
      },
      { text: "Analyser at zero, its own leak check passed. Probe as deep as it is made for: a short pipe gets a longer one." },
      {
        text: "Read at idle and at 2500 rpm; write the ECU's own λ before the catalyst down at the same moment.",
        caution: "hot-exhaust",
      },
      { text: "Excess air says that there is air, not where it came in: plug a tail joint, probe deeper, raise the speed." },
    ],
    displaces: [],
    cautions: ["running-engine", "hot-exhaust"],
    clocks: [{ name: "Warm the catalyst", seconds: 180 }],
    ...refusing(unfit, context),
  }),
  judge: judgeExhaustGas,
};
