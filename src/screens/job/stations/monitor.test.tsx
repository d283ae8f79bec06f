import { fireEvent, screen, waitFor } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import { VAPOUR } from "@/core/core.fixture";
import { journalOf, onBench } from "../job.fixture";
import { MonitorProof } from "./monitor";

const type = (label: string, value: string) => fireEvent.change(screen.getByLabelText(label), { target: { value } });

describe("the car's own EVAP monitor", () => {
  it("is recorded together with what the job waits for then: nothing of it comes after what is decided next", async () => {
    const journal = journalOf(VAPOUR);
    // In one go they are written at the same moment.
    const moments: number[] = [];
    let moment = 0;
    const add = journal.add.bind(journal);
    journal.add = (...line) => {
      moments.push(moment);
      queueMicrotask(() => moment++);
      return add(...line);
    };
    const { user } = onBench(journal, <MonitorProof />);
    await user.click(screen.getByRole("radio", { name: "Ran and passed" }));
    type("How it was read", "readiness bit, no pending code");
    await user.click(screen.getByRole("button", { name: "Record the monitor" }));
    await waitFor(() => expect(moments).toHaveLength(2));
    expect(moments).toEqual([0, 0]);
    expect(journal.entries.slice(-2).map((e) => [e.kind, e.body])).toMatchObject([
      ["monitor", { result: "passed" }],
      ["waiting", { on: "me" }],
    ]);
  });
});
