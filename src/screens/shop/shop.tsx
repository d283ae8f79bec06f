"use client";

import { useEffect, useState } from "react";
import { mergeShops } from "@/core/shop/merge";
import { type Proof, type Shop, type ShopVersion, shopNameForm } from "@/core/shop/settings";
import type { UnitId } from "@/core/units";
import { Button, LinkButton } from "@/ui/button";
import { ErrorNote, SelectField } from "@/ui/field";
import { Form } from "@/ui/form";
import { FormFields } from "../form/form-field";
import { getJson, Refused, sendJson } from "../session/api";
import { keepShop } from "../session/known-shop";
import { PageHead } from "../session/page-head";
import { usePerson } from "../session/person";
import { type Preferences, usePreferences } from "../session/preferences";
import { Backups, type BackupsProps } from "./backups";
import { Devices } from "./devices";
import { House } from "./house";
import { Instruments } from "./instruments";
import { KeptHere } from "./kept-here";
import { LimitList } from "./limits";
import { Machines } from "./machines";
import type { ShopPartProps } from "./part";
import { People } from "./people";
import { SecurityLog } from "./security-log";
import { useShopForm } from "./use-shop-form";
import { WholeShop } from "./whole-shop";

/** The shop: machines, house methods, limits with their source, and this device's units. */
export function ShopScreen({
  initial,
  proofs,
  backups,
}: {
  initial: ShopVersion;
  proofs: Readonly<Record<string, readonly Proof[]>>;
  backups: BackupsProps;
}) {
  const [saved, setSaved] = useState(initial);
  const { shop } = saved;
  useEffect(() => keepShop(shop), [shop]);
  const { person, ask } = usePerson();
  // Settings that another device has changed otherwise meanwhile, until somebody decides
  const [parted, setParted] = useState<Shop>();
  const [error, setError] = useState("");
  const [said, setSaid] = useState("");
  const put = async (base: number, next: Shop): Promise<boolean> => {
    setError("");
    setSaid("");
    setParted(undefined);
    if (!person) {
      ask();
      setError("Sign in first, then save again. What you typed is kept");
      return false;
    }
    try {
      setSaved(await sendJson<ShopVersion>("PUT", "shop", { base, by: person, shop: next }));
      setSaid("Saved.");
      return true;
    } catch (e) {
      setError((e as Error).message);
      if (e instanceof Refused && e.status === 409) setParted(next);
      return false;
    }
  };
  const save = (next: Shop) => put(saved.version, next);
  const newest = () => getJson<ShopVersion>("shop").catch((e: Error) => setError(e.message));
  const saveOver = async (next: Shop) => {
    const now = await newest();
    if (now) await put(now.version, mergeShops(saved.shop, next, now.shop, "mine").merged);
  };
  const showTheirs = async () => {
    const now = await newest();
    if (!now) return;
    setSaved(now);
    setParted(undefined);
    setError("");
  };
  return (
    <div className="mx-auto flex max-w-5xl flex-col gap-8 p-4 sm:p-6">
      <PageHead title="Shop">
        <p role="status" className="text-calm">
          {said}
        </p>
        <LinkButton href="/what-we-know">What we know</LinkButton>
      </PageHead>
      {error && <ErrorNote>{error}</ErrorNote>}
      {parted && (
        <div className="flex flex-wrap gap-2">
          <Button onClick={() => void saveOver(parted)}>Save mine over it</Button>
          <Button onClick={() => void showTheirs()}>Show what stands there now</Button>
        </div>
      )}
      <main className="flex flex-col gap-8">
        <ShopName shop={shop} save={save} />
        <People />
        <Devices />
        <Machines shop={shop} save={save} proofs={proofs} />
        <Instruments shop={shop} save={save} />
        <House shop={shop} save={save} />
        <LimitList shop={shop} save={save} />
        <Backups {...backups} />
        <WholeShop />
        <SecurityLog />
        <KeptHere />
        <Units />
      </main>
    </div>
  );
}

function ShopName({ shop, save }: ShopPartProps) {
  const form = useShopForm(shopNameForm, "name", shop);
  return (
    <Form className="flex max-w-xl items-start gap-3" onSubmit={() => void form.submit(({ name }) => save({ ...shop, name }))}>
      <div className="grow">
        <FormFields of={form} names={["name"]} />
      </div>
      <Button type="submit" className="mt-6">
        Save
      </Button>
    </Form>
  );
}

const units = (...ids: UnitId[]) => ids.map((u) => [u, u] as const);

function Units() {
  const { preferences, change } = usePreferences();
  const pick = (
    key: Exclude<keyof Preferences, "keys" | "sound" | "experience">,
    label: string,
    options: readonly (readonly [string, string])[],
  ) => (
    <SelectField label={label} options={options} value={preferences[key]} onChange={(e) => change({ [key]: e.target.value })} />
  );
  return (
    <section aria-label="Units on this device" className="flex flex-col gap-3">
      <h2 className="text-xl font-bold">Units on this device</h2>
      <p className="text-muted">A reading is always shown in the unit it was read in as well.</p>
      <div className="grid gap-4 sm:grid-cols-5">
        {pick("pressure", "Pressure", units("psi", "kPa", "mbar", "hPa", "inH2O", "bar"))}
        {pick("flow", "Flow", units("L/min", "cc/min", "SCFH"))}
        {pick("length", "Size", units("mm", "in", "thou"))}
        {pick("temperature", "Temperature", units("°C", "°F"))}
        {pick("decimal", "Decimal sign", [
          [".", "Point, 0.4"],
          [",", "Comma, 0,4"],
        ])}
      </div>
    </section>
  );
}
