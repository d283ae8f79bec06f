"use client";

import { HOUSE_QUESTIONS, type HouseMethods, type HouseQuestion } from "@/core/shop/settings";
import { Choice } from "@/ui/choice";
import type { ShopPartProps } from "./part";

/** Where practitioners disagree: the school this shop follows changes plans, words and verdicts. */
export function House({ shop, save }: ShopPartProps) {
  return (
    <section aria-label="House methods" className="flex flex-col gap-4">
      <h2 className="text-xl font-bold">House methods</h2>
      <p className="text-muted">
        Both schools are right somewhere. What you choose changes plans, words and verdicts of every job.
      </p>
      {(Object.keys(HOUSE_QUESTIONS) as HouseQuestion[]).map((question) => (
        <Choice
          key={question}
          label={HOUSE_QUESTIONS[question].asks}
          options={Object.entries(HOUSE_QUESTIONS[question].schools) as [string, string][]}
          value={shop.house[question]}
          onChange={(school) => void save({ ...shop, house: { ...shop.house, [question]: school } as HouseMethods })}
        />
      ))}
    </section>
  );
}
