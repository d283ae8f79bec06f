import { getDocument } from "pdfjs-dist/legacy/build/pdf.mjs";
import {
  button,
  driveAndRead,
  idOf,
  inAs,
  leaking,
  main,
  openJob,
  putEverythingBack,
  recordRun,
  setConditions,
  signedBy,
  signIn,
  smoke,
  sound,
  startClock,
  station,
  survey,
  TRUE_HOLE,
} from "./steps";
import { CLOCKED, expect, test } from "./test";

test("a lean car goes from code to proven repair, and not a step earlier", CLOCKED, async ({ page }) => {
  await startClock(page);
  await signIn(page, "Wren Alder");
  await openJob(page, "Light on, rough idle when warm", "FW 77 TST");
  await setConditions(page);

  await station(page, "Scan");
  await page.getByLabel("Code", { exact: true }).fill("p0171");
  await button(page, "Add code").click();
  await expect(main(page).getByText("Mixture too lean, bank 1")).toBeVisible();
  await button(page, "Record the codes").click();
  await expect(main(page).getByText("Recorded.")).toBeVisible();

  await station(page, "Look");
  await button(page, /^(All OK|Rest OK \(\d+\))$/).click();
  await button(page, "Record the look").click();
  await expect(main(page).getByText("Nothing found by eye and hand")).toBeVisible();

  // The survey names the shape, its members, and a size that holds the truth in its interval.
  await survey(page, leaking);
  const soFar = page.getByRole("region", { name: "Verdict so far" });
  await expect(soFar.getByText(/fading as airflow rises/).first()).toBeVisible();
  await expect(soFar.getByText(/Smoke or enrichment at the joints/)).toBeVisible();
  const size = /95 %: ([\d.]+) to ([\d.]+) mm/.exec((await soFar.textContent()) ?? "");
  expect(Number(size?.[1])).toBeLessThanOrEqual(TRUE_HOLE * 1000);
  expect(Number(size?.[2])).toBeGreaterThanOrEqual(TRUE_HOLE * 1000);
  await button(page, "Record the check").click();
  await expect(page.getByRole("region", { name: "Fuel-trim survey, so far" }).getByText("Faulty")).toBeVisible();
  await station(page, "Suspects");
  await expect(main(page).getByText("Best next check")).toBeVisible();
  await expect(main(page).getByRole("button", { name: /Manifold gasket leaks/ })).toBeVisible();

  await smoke(page, { settleAt: 8.4, seenAt: "Manifold gasket", arrivals: ["Manifold"] });
  const verdict = page.getByRole("region", { name: "Verdict of this run" });
  await expect(verdict.getByText("Leaking", { exact: true })).toBeVisible();
  await recordRun(page);
  await expect(page.getByRole("region", { name: "Smoke run, so far" }).getByText("Smoke at Manifold gasket")).toBeVisible();
  await expect(page.getByRole("complementary", { name: "Ledger" }).getByText("plug at Tailpipe")).toBeVisible();
  await expect(page.getByRole("button", { name: "Manifold: leaking" })).toBeVisible();

  await station(page, "Find");
  await page.getByLabel("What was found").fill("Gasket squeezed out at runner 2");
  await page.getByLabel("Size, if measured (sharp-edged hole)", { exact: true }).fill("2,2 mm");
  await page.getByLabel("Confirmed", { exact: true }).selectOption("capped-off");
  await button(page, "Record the finding").click();
  await expect(main(page).getByText("not repaired yet")).toBeVisible();

  // Refused, with reasons: on the screen and at the door.
  await station(page, "Prove");
  await expect(main(page).getByText("This job cannot be closed yet")).toBeVisible();
  await expect(main(page).getByText("Repair what was found, or set it aside: Gasket squeezed out at runner 2")).toBeVisible();
  const jobId = idOf(page);
  const entries = (await (await page.request.get(`/api/v1/jobs/${jobId}/entries`)).json()) as { seq: number; jobId: string }[];
  const decidedOn = Math.max(...entries.map((e) => e.seq));
  const refused = await page.request.post(`/api/v1/jobs/${jobId}/entries`, {
    data: signedBy(await inAs(page, "Wren Alder"), {
      id: crypto.randomUUID(),
      jobId,
      kind: "close",
      v: 1,
      at: new Date().toISOString(),
      by: "Wren Alder",
      device: "x",
      deviceSeq: 1,
      seenSeq: decidedOn,
      body: { decidedOn },
    }),
  });
  expect(refused.status()).toBe(400);
  expect((await refused.json()).error.message).toContain("Put back to normal");

  await putEverythingBack(page);
  await station(page, "Fix");
  await page.getByLabel("What was done").fill("Manifold gasket renewed");
  await page.getByLabel("Labour, minutes").fill("95");
  await page.getByLabel("Parts, one a line").fill("1 manifold gasket");
  await page.getByLabel("The customer gave the go-ahead").check();
  await page.clock.fastForward(60_000);
  await button(page, "Record the repair").click();
  await expect(main(page).getByText(/95 min/)).toBeVisible();
  await station(page, "Prove");
  await expect(main(page).getByText(/Repeat the fuel-trim survey: trim at idle/)).toBeVisible();
  await expect(main(page).getByText(/Repeat the smoke run: manifold gasket/)).toBeVisible();

  await page.clock.fastForward(60_000);
  await survey(page, sound, 78);
  await button(page, "Record the check").click();
  await expect(page.getByRole("region", { name: "Fuel-trim survey, so far" }).getByText("Works", { exact: true })).toBeVisible();
  await smoke(page, { settleAt: 4.6, arrivals: ["Manifold", "Crankcase", "Breather hose"] });
  await recordRun(page);
  await expect(page.getByRole("region", { name: "Smoke run, so far" }).getByText("Tight", { exact: true })).toBeVisible();
  await expect(page.getByRole("button", { name: "Manifold: proved tight" })).toBeVisible();

  await station(page, "Prove");
  await page.getByLabel("How it was tried").fill("Ten minutes of idle, then the hill road");
  await page.getByRole("radio", { name: "Gone" }).click();
  await button(page, "Record the try").click();
  await button(page, "Codes cleared now").click();
  await expect(
    main(page)
      .getByText(/Put back to normal/)
      .first(),
  ).toBeVisible();
  await putEverythingBack(page);
  await expect(main(page).getByText(/Drive 10 min or more, then read the codes/)).toBeVisible();
  await driveAndRead(page);
  await expect(main(page).getByText("Nothing blocks closing this job.")).toBeVisible();

  await station(page, "Hand over");
  await expect(main(page).getByText("This is a full handover.", { exact: false })).toBeVisible();
  await page.getByLabel("What the customer should know").fill("The manifold gasket let in air; it is new and measured tight.");
  await button(page, "Hand over").click();
  await button(page, "Close the job").click();
  await expect(main(page).getByText("Closed.")).toBeVisible();

  const pdf = await page.request.get(`/api/v1/jobs/${jobId}/handover`);
  const text = await pdfText(await pdf.body());
  expect(text.pages).toBe(1);
  expect(text.words).toContain("Smoke at Manifold gasket");
  expect(text.words).toContain("Trims near zero at every point");
  expect(text.words).toContain("Tight");
  expect(text.words).toContain("Gasket squeezed out at runner 2");
  await page.goto(`/jobs/${jobId}/handover`);
  await expect(button(page, "Print")).toBeVisible();
  for (const format of ["A4", "Letter"]) {
    const printed = await pdfText(await page.pdf({ format, preferCSSPageSize: false }));
    expect(printed.pages, format).toBe(1);
    expect(printed.words).toContain("Smoke at Manifold gasket");
    expect(printed.words).not.toContain("Back to the job");
  }
  await expect(page.getByRole("img", { name: "Air map around Manifold gasket" })).toBeVisible();
});

test("a smoke run whose heater timed out proves nothing and counts for nothing", CLOCKED, async ({ page }) => {
  await startClock(page);
  await signIn(page, "Wren Alder");
  await openJob(page, "Hiss at idle", "FW 78 TST");
  await setConditions(page);
  const ledger = page.getByRole("complementary", { name: "Ledger" });
  const before = await ledger.getByRole("region", { name: "Suspects" }).textContent();
  await smoke(page, { settleAt: 1.2, arrivals: ["Manifold"], linger: 300 });
  const verdict = page.getByRole("region", { name: "Verdict of this run" });
  await expect(verdict.getByText("Void — proves nothing")).toBeVisible();
  await expect(verdict.getByText(/timed out .* s before the run ended/)).toBeVisible();
  await recordRun(page);
  await expect(page.getByRole("region", { name: "Smoke run, so far" }).getByText("Void — proves nothing")).toBeVisible();
  expect(await ledger.getByRole("region", { name: "Suspects" }).textContent()).toBe(before);
  await station(page, "Story");
  await expect(page.getByRole("button", { name: "Manifold: untested", exact: true })).toBeVisible();
});

async function pdfText(bytes: Buffer): Promise<{ pages: number; words: string }> {
  const document = await getDocument({ data: new Uint8Array(bytes) }).promise;
  let words = "";
  for (let n = 1; n <= document.numPages; n++) {
    const content = await (await document.getPage(n)).getTextContent();
    words += content.items.map((item) => ("str" in item ? item.str : "")).join(" ");
  }
  return { pages: document.numPages, words: words.replace(/\s+/g, " ") };
}
