"use client";

import { useState } from "react";
import { LIMIT_FIELDS, LIMIT_GROUPS, limitFromShown, shownLimit } from "@/core/shop/limits";
import { DEFAULT_LIMITS, LIMIT_IDS, type LimitId } from "@/core/shop/settings";
import { parseNumber } from "@/core/units";
import { Button } from "@/ui/button";
import { ErrorNote, TextField } from "@/ui/field";
import { Form } from "@/ui/form";
import type { ShopPartProps } from "./part";

/** Every limit with its source; what the shop sets itself says so. */
export function LimitList({ shop, save }: ShopPartProps) {
  const [typed, setTyped] = useState(
    () => Object.fromEntries(LIMIT_IDS.map((id) => [id, shownLimit(id, shop.limits[id].value)])) as Record<LimitId, string>,
  );
  const [error, setError] = useState("");
  const record = () => {
    const limits = { ...shop.limits };
    for (const id of LIMIT_IDS) {
      // What was not touched keeps its own value, not the rounding of it.
      if (typed[id] === shownLimit(id, shop.limits[id].value)) continue;
      const n = parseNumber(typed[id]);
      if (!n.ok) return setError(`${LIMIT_FIELDS[id].name}: ${n.message}`);
      const isDefault = typed[id] === shownLimit(id, DEFAULT_LIMITS[id].value);
      limits[id] = isDefault ? DEFAULT_LIMITS[id] : { value: limitFromShown(id, n.value), source: "set by this shop" };
    }
    setError("");
    void save({ ...shop, limits });
  };
  return (
    <section aria-label="Limits" className="flex flex-col gap-3">
      <h2 className="text-xl font-bold">Limits</h2>
      <p className="text-muted">
        Shop defaults until you set your own. The maker's data goes before any of them: enter it with the vehicle.
      </p>
      <Form className="flex flex-col gap-5" onSubmit={() => record()}>
        {LIMIT_GROUPS.map(([group, fields]) => (
          <fieldset key={group} className="grid gap-4 sm:grid-cols-2 lg:grid-cols-3">
            <legend className="mb-1 font-bold">{group}</legend>
            {(Object.keys(fields) as LimitId[]).map((id) => (
              <TextField
                key={id}
                label={`${LIMIT_FIELDS[id].name} (${LIMIT_FIELDS[id].unit})`}
                inputMode="decimal"
                value={typed[id]}
                onChange={(e) => setTyped({ ...typed, [id]: e.target.value })}
                hint={shop.limits[id].source}
              />
            ))}
          </fieldset>
        ))}
        {error && <ErrorNote>{error}</ErrorNote>}
        <div>
          <Button type="submit">Save the limits</Button>
        </div>
      </Form>
    </section>
  );
}
