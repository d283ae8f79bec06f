"use client";

import { CircleCheck, CircleX } from "lucide-react";
import type { ReactNode } from "react";
import { type CircuitRecord, circuit, type Pin, type PinId, type PinReading, pinGood, pinsOf } from "@/core/checks/circuit";
import { circuitForm } from "@/core/checks/circuit/fields";
import { parseTrusted, toSi } from "@/core/units";
import { FormFields } from "../../../form/form-field";
import { CheckFrame } from "../check-frame";
import { useCheckForm } from "../use-check-form";

type Volts = Exclude<PinId, "lamp">;

/** The wire walked from battery to load: one pin after the other, the next one open, the rest waiting. */
export function CircuitCheck({ head }: { head: ReactNode }) {
  const check = useCheckForm("circuit", circuitForm);
  const { context, value } = check;
  const [wiring, switched] = [value<CircuitRecord["wiring"]>("wiring"), value<CircuitRecord["switched"]>("switched")];
  const volts = (name: "battery" | `volts.${Volts}`) => parseTrusted(value<string | undefined>(name) ?? "", "voltage", "V");
  const battery = volts("battery");
  const pins = pinsOf(wiring, switched);
  const readingOf = ({ id, expects }: Pin): PinReading | undefined => {
    const lamp = value<PinReading["lamp"]>("lamp");
    if (expects === "lamp") return lamp && { pin: id, lamp };
    const voltage = volts(`volts.${id as Volts}`);
    return voltage && { pin: id, voltage };
  };
  const good = (pin: Pin) => {
    const reading = readingOf(pin);
    return reading && battery ? pinGood(pin, reading, toSi(battery), context.limits) : undefined;
  };
  // What was typed into stays in sight, whatever became of the battery or a pin before it.
  const holdsText = ({ id, expects }: Pin) =>
    ![undefined, ""].includes(value(expects === "lamp" ? "lamp" : `volts.${id as Volts}`));
  const walked = pins.findIndex((p) => good(p) !== true);
  const plan = circuit.plan(context, { joint: value("joint"), wiring, switched, pierced: value("pierced") === true });
  return (
    <CheckFrame check={check} head={head} plan={plan}>
      <div className="grid items-start gap-4 sm:grid-cols-2">
        <FormFields of={check} names={["joint", "wiring", "switched", "needsEngine", "engineRunning", "pierced"]} />
      </div>
      <ol className="flex flex-col">
        <Step
          name="Battery, across its terminals"
          how="In the state the circuit is measured in"
          state={battery ? true : undefined}
          open
        >
          <FormFields of={check} names={["battery"]} />
        </Step>
        {pins.map((pin, i) => (
          <Step
            key={pin.id}
            name={pin.name}
            how={pin.how}
            state={good(pin)}
            open={i === 0 || (battery !== undefined && (walked < 0 || i <= walked)) || holdsText(pin)}
          >
            <FormFields of={check} names={[pin.expects === "lamp" ? "lamp" : `volts.${pin.id as Volts}`]} />
          </Step>
        ))}
      </ol>
      <FormFields of={check} names={["instrument"]} />
    </CheckFrame>
  );
}

/** One pin on the wire: open while it is next or was read, a name only while it waits. */
function Step({
  name,
  how,
  state,
  open,
  children,
}: {
  name: string;
  how: string;
  state: boolean | undefined;
  open: boolean;
  children: ReactNode;
}) {
  const edge = state === undefined ? "border-edge" : state ? "border-calm" : "border-ember";
  return (
    <li className={`border-l-4 py-2 pl-4 ${edge} ${open ? "" : "text-muted"}`}>
      <p className="flex items-center gap-2 font-bold">
        {state !== undefined &&
          (state ? (
            <CircleCheck aria-label="right" size={18} className="text-calm" />
          ) : (
            <CircleX aria-label="wrong" size={18} className="text-ember" />
          ))}
        {name}
      </p>
      {open && (
        <div className="grid items-start gap-3 sm:grid-cols-[minmax(0,1fr)_16rem]">
          <p className="text-muted">{how}.</p>
          {children}
        </div>
      )}
    </li>
  );
}
