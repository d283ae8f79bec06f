import { stateAt } from "../../practice/car";
import { type Bay, chosen, gaugeIn, type Setup, shown } from "../../practice/readers/bay";
import { heldAt, inHg } from "../../practice/readers/standing";
import { fromSi, toSi } from "../../units";
import type { ChainRecord } from "./fields";

export const simulate = (bay: Bay, setup: Setup): ChainRecord => {
  const { car, noise } = bay;
  const is = (id: string) => car.faults.find((f) => f.cause.id === id);
  const supply = is("flap-line");
  const idle = car.context.vehicle.fuel === "diesel" ? 24 : fromSi(car.ambient - stateAt(car, {}).map, "inHg").value;
  const inlet = Math.max(0, (supply ? idle * (0.55 - 0.3 * supply.size) : idle) + noise.normal(0.2));
  const works = !["flap-circuit", "flap-solenoid", "flap-shaft"].some(is) && !supply;
  return {
    device: chosen(setup, "device", "Runner flaps"),
    links: {
      supply: shown(fromSiInHg(inlet), "inHg", 0.1, "vacuum"),
      battery: { value: 14, unit: "V" },
      control: { value: is("flap-circuit") ? 0.1 : 13.6, unit: "V" },
      outlet: shown(fromSiInHg(is("flap-solenoid") || is("flap-circuit") ? 0.5 : inlet * 0.97), "inHg", 0.1, "vacuum"),
      diaphragm: {
        start: 20,
        end: inHg(heldAt(bay, is("flap-pipe") ? "flap-pipe" : "flap-diaphragm", 60)),
        seconds: 60,
        unit: "inHg",
      },
      shaft: !is("flap-shaft"),
      movement: works && !is("flap-diaphragm") && !is("flap-pipe"),
      plate: !is("flap-plate"),
    },
    instrument: gaugeIn("inHg", 0.1),
  };
};

const fromSiInHg = (value: number) => toSi({ value, unit: "inHg" });
