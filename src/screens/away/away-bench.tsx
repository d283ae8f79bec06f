"use client";

import { useEffect, useState } from "react";
import { DEFAULT_SHOP, type Shop } from "@/core/shop/settings";
import { Bench } from "../job/bench";
import { getJson } from "../session/api";
import { experienceLately, knownShop } from "../session/known-shop";

/** The job that the address names: as the bench's own page or in its place. */
const jobOf = ({ pathname, search }: Location) =>
  /^\/jobs\/([^/]+)$/.exec(pathname)?.[1] ?? new URLSearchParams(search).get("job") ?? "";

/** A job's bench from what this device holds; the shop's settings as they were when it last saw them. */
export function AwayBench() {
  const [place, setPlace] = useState<{ jobId: string; shop: Shop }>();
  useEffect(() => {
    const jobId = jobOf(window.location);
    const known = knownShop();
    setPlace({ jobId, shop: known ?? DEFAULT_SHOP });
    // The server is back, or was never gone: what holds now is judged by.
    getJson<{ shop: Shop }>("shop")
      .then(({ shop }) => setPlace({ jobId, shop }))
      .catch(() => {});
  }, []);
  if (!place) return null;
  return <Bench jobId={place.jobId} shop={place.shop} experience={experienceLately.known(place.jobId)} />;
}
