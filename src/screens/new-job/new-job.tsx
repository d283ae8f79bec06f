"use client";

import { useRouter } from "next/navigation";
import { useEffect, useMemo, useState } from "react";
import {
  type CarsOfVin,
  type KnownCar,
  type LikeCar,
  scanEntries,
  storyForm,
  type VehicleFormFacts,
  vehicleForm,
} from "@/core/journal";
import { isVin, vehicleFacts, vehicleFields, vehicleName } from "@/core/vehicle";
import { Button } from "@/ui/button";
import { ErrorNote } from "@/ui/field";
import { Form } from "@/ui/form";
import { FormFields } from "../form/form-field";
import { ScanText, useScanText } from "../form/scan-text";
import { useTypedForm } from "../form/use-typed-form";
import { VehicleFields } from "../job/vehicle-fields";
import type { NewEntry } from "../session/device";
import { PageHead } from "../session/page-head";
import { usePerson } from "../session/person";
import { useTerms } from "../session/preferences";
import { useDraft } from "../session/storage";
import { EarlierVisits } from "./earlier-visits";
import { LikeCarPicker } from "./like-car";
import { newIds, openJob } from "./open-job";
import { useAsked } from "./use-asked";

const NO_STORY = { story: undefined };
const UNKNOWN_CAR: KnownCar = { visits: [] };
const NO_VIN: CarsOfVin = { like: [] };
/** As many signs of a registration as tell a car */
const TELLS = 3;

/** Opens a job: which car, the complaint, and what is known already of both; then on to the bench. */
export function NewJob() {
  const router = useRouter();
  const { person, ask } = usePerson();
  const terms = useTerms();
  const story = useTypedForm(storyForm, "pelota.draft.new-job.story", NO_STORY);
  const [like, setLike, clearLike] = useDraft<readonly LikeCar[]>("pelota.draft.new-job.like", []);
  const [unlike, setUnlike, clearUnlike] = useDraft("pelota.draft.new-job.unlike", "");
  const [scan, setScan, clearScan] = useDraft("pelota.draft.new-job.scan", "");
  const [registration, setRegistration] = useState("");
  const [typedVin, setTypedVin] = useState("");
  const ofVin = useAsked<CarsOfVin>(
    isVin(typedVin) ? `cars?${new URLSearchParams({ vin: typedVin.trim() })}` : undefined,
    NO_VIN,
  );
  const byPlate = useAsked<KnownCar>(
    registration.replace(/[^\p{L}\p{N}]/gu, "").length < TELLS ? undefined : `cars?${new URLSearchParams({ registration })}`,
    UNKNOWN_CAR,
  );
  // A car keeps its VIN where it changes its registration.
  const car = byPlate.facts ? byPlate : (ofVin.car ?? byPlate);
  const read = useScanText(scan);
  // What a damaged device kept is no car.
  const picked = useMemo(() => like.find((l) => vehicleFields.schema.isValidSync(l?.facts, { strict: true })), [like]);
  // Where the shop knows one kind only by this VIN it is taken by itself, until somebody says that it is not like it.
  const [alike, ...others] = ofVin.like;
  const byItself = picked === undefined && others.length === 0 && typedVin !== unlike ? alike : undefined;
  const chosen = picked ?? byItself;
  const known = useMemo<VehicleFormFacts>(
    () => ({ vehicle: car.facts ?? chosen?.facts, by: person ?? "this shop" }),
    [car, chosen, person],
  );
  const vehicle = useTypedForm(vehicleForm, "pelota.draft.new-job.vehicle", known);
  const typed = String(vehicle.value("registration") ?? "");
  useEffect(() => setRegistration(typed), [typed]);
  const vinThere = String(vehicle.value("vin") ?? "");
  useEffect(() => setTypedVin(vinThere), [vinThere]);
  const vin = read.report?.vin;
  const { latest, set } = vehicle;
  useEffect(() => {
    // What was typed stands before what a scan says.
    if (vin && !latest("vin")) set({ vin });
  }, [vin, latest, set]);
  const [ids, setIds, clearIds] = useDraft("pelota.draft.new-job.ids", { jobId: "", openingId: "" });
  const [error, setError] = useState<string>();
  const [busy, setBusy] = useState(false);

  const open = async (straight = false) => {
    const [told, described] = [story.now().record, vehicle.now().record];
    if (!told || !described) {
      // The first field that something is wrong with has the focus: the complaint stands above the car.
      if (!described) await vehicle.complain();
      if (!told) await story.complain();
      return;
    }
    if (!person) return ask();
    setError(undefined);
    setBusy(true);
    const own = ids.jobId ? ids : newIds();
    setIds(own);
    try {
      const first: NewEntry[] = [
        { kind: "vehicle", body: described },
        { kind: "story", body: told },
      ];
      if (read.report) first.push(...scanEntries(read.report));
      const bench = await openJob(own, first, person);
      story.clear();
      vehicle.clear();
      clearLike();
      clearUnlike();
      clearScan();
      clearIds();
      router.push(straight ? `${bench}${bench.includes("?") ? "&" : "?"}check=best` : bench);
    } catch (e) {
      setError((e as Error).message);
      setBusy(false);
    }
  };

  const described = vehicle.filled.record;
  return (
    <div className="mx-auto flex max-w-4xl flex-col gap-6 p-4 sm:p-6">
      <PageHead title="New job" />
      <main>
        <Form className="flex flex-col gap-5" onSubmit={() => void open()}>
          <div className="grid items-start gap-4 sm:grid-cols-2">
            <FormFields of={vehicle} names={["registration"]} />
            {!car.facts && (
              <LikeCarPicker
                picked={chosen}
                byItself={byItself !== undefined}
                byVin={ofVin.like}
                onPick={(next) => {
                  setLike(next ? [next] : []);
                  setUnlike(next ? "" : typedVin);
                }}
              />
            )}
          </div>
          <EarlierVisits car={car} />
          <FormFields of={story} names={["purpose", "complaint"]} />
          <div className="grid items-start gap-4 sm:grid-cols-2">
            <FormFields of={vehicle} names={["displacement", "fuel"]} />
          </div>
          <ScanText text={scan} onText={setScan} read={read} />
          <details className="border-t border-line pt-2">
            <summary className="flex min-h-11 cursor-pointer flex-wrap items-center gap-x-3">
              <span className="font-bold">More about the car</span>
              <span className="text-muted">
                {known.vehicle && described ? terms(vehicleName(vehicleFacts(described))) : "make, model, VIN, what is fitted"}
              </span>
            </summary>
            <div className="pt-2">
              <VehicleFields of={vehicle} without={["registration", "displacement", "fuel"]} />
            </div>
          </details>
          {error && <ErrorNote>{error}</ErrorNote>}
          <div className="flex flex-wrap gap-3">
            <Button type="submit" look="primary" disabled={busy}>
              Open the job
            </Button>
            <Button disabled={busy} onClick={() => void open(true)}>
              Open at the best check
            </Button>
          </div>
        </Form>
      </main>
    </div>
  );
}
