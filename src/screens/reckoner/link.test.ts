import { describe, expect, it } from "vitest";
import { TOOLS, toolOf } from "@/core/reckoner";
import { inLink, linkTo } from "./link";

const form = (id: string) => toolOf(id)?.form;

describe("a link to the reckoner", () => {
  it("carries what was typed into any tool there and back, line breaks and signs too", () => {
    for (const tool of TOOLS) {
      const draft = Object.fromEntries(Object.keys(tool.form.fields).map((name, i) => [name, `${i} & é=\n2 #${i}?`]));
      expect(inLink(linkTo(tool.id, tool.form, draft), form)).toEqual({ tool: tool.id, draft });
    }
  });

  it("takes nothing that its form does not ask for, and no tool that there is not", () => {
    expect(inLink("?reckon=hole&flow=1&pictures=x&startedAt=2020&__proto__=y", form)).toEqual({
      tool: "hole",
      draft: { flow: "1" },
    });
    expect(inLink("?reckon=odds&flow=1", form)).toEqual({});
    expect(inLink("", form)).toEqual({});
    expect(linkTo("hole", form("hole") as never, { flow: { deep: 1 }, pressure: "" } as never)).toBe("?reckon=hole");
  });
});
