// @vitest-environment jsdom
import { beforeEach, expect, it } from "vitest";
import { lately } from "./lately";

beforeEach(() => localStorage.clear());

it("keeps what was seen lately of each job, forgets what is gone and what was seen longest ago", () => {
  const some = lately<number>("pelota.some");
  for (let i = 0; i < 50; i++) some.keep(`job ${i}`, i);
  some.keep("job 20", 99);
  some.keep("job 21", undefined);
  expect(some.known("job 20")).toBe(99);
  expect(some.known("job 49")).toBe(49);
  expect(some.known("job 21")).toBeUndefined();
  expect(some.known("job 3")).toBeUndefined();
  localStorage.setItem("pelota.some", '{"job 20":1}');
  expect(some.known("job 20")).toBeUndefined();
  some.keep("job 1", 1);
  expect(some.known("job 1")).toBe(1);
});
