import { QuantityField } from "@/ui/quantity-field";

/** Gas space shut in between pump and part: with it a loss is the size of a hole. */
export function TrappedVolume({ value, onChange }: { value: string; onChange: (typed: string) => void }) {
  return (
    <div className="max-w-md">
      <QuantityField
        label="Shut in between pump and part, if known"
        field="trapped"
        example="60"
        unit="mL"
        units={["mL", "L"]}
        value={value}
        onChange={onChange}
        hint="Then a loss is given as the hole it comes through"
      />
    </div>
  );
}
