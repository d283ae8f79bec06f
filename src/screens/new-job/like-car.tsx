"use client";

import { X } from "lucide-react";
import { useState } from "react";
import type { LikeCar } from "@/core/journal";
import { Button } from "@/ui/button";
import { TextField } from "@/ui/field";
import { useAsked } from "./use-asked";

const NONE: readonly LikeCar[] = [];

/** A car of this shop to take the facts of: what it is, nothing of what was done to it. */
export function LikeCarPicker({
  picked,
  byItself,
  byVin,
  onPick,
}: {
  picked: LikeCar | undefined;
  /** Nobody picked it: it is the one kind whose VIN is alike */
  byItself: boolean;
  /** Cars whose VIN is alike in maker and kind: offered before a letter is typed */
  byVin: readonly LikeCar[];
  onPick: (car: LikeCar | undefined) => void;
}) {
  const [typed, setTyped] = useState("");
  const likeTyped = useAsked<readonly LikeCar[]>(
    typed.trim().length < 2 ? undefined : `cars?${new URLSearchParams({ like: typed.trim() })}`,
    NONE,
  );
  const found = typed.trim() === "" ? byVin : likeTyped;
  if (picked)
    return (
      <div className="flex flex-col gap-1">
        <span className="text-muted">Same as a car before</span>
        <Button onClick={() => onPick(undefined)} aria-label={`Not like ${picked.vehicle}`}>
          {picked.vehicle} <X aria-hidden size={16} />
        </Button>
        {byItself && <p className="text-sm text-muted">Filled in by its VIN. Not the same? Take it off</p>}
      </div>
    );
  return (
    <div className="flex flex-col gap-1">
      <TextField
        label="Same as a car before (optional)"
        placeholder="Two letters of make, model or engine"
        hint={typed.trim() === "" && byVin.length > 0 ? "Its VIN is alike in maker and kind" : undefined}
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
      />
      {found.length > 0 && (
        <ul aria-label="Cars of this shop" className="flex flex-wrap gap-2">
          {found.map((car) => (
            <li key={car.job}>
              <Button
                onClick={() => {
                  setTyped("");
                  onPick(car);
                }}
              >
                {car.vehicle}
              </Button>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
