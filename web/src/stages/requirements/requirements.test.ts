import { expect, test } from "vitest";
import { countsOf, inState, missingByStage, stepped, type Requirement } from "./requirements";

const LIST = (["shown", "missing", "not_applicable", "open", "missing"] as const).map(
  (status, i) => ({ id: String(i), status }) as Requirement,
);

test("what does not apply is not counted among what applies", () => {
  expect(countsOf(LIST)).toEqual({ shown: 1, missing: 2, open: 1, applying: 4 });
});

test("a filter shows one state", () => {
  expect(inState(LIST, "missing").map((r) => r.id)).toEqual(["1", "4"]);
  expect(inState(LIST, "all")).toHaveLength(5);
});

test("steps end at the first and the last", () => {
  expect(stepped(LIST, null, 1)?.id).toBe("0");
  expect(stepped(LIST, "0", -1)?.id).toBe("0");
  expect(stepped(LIST, "0", 1)?.id).toBe("1");
  expect(stepped(LIST, "4", 1)?.id).toBe("4");
  expect(stepped([], null, 1)).toBeUndefined();
});

test("what is missing is counted by stage", () => {
  const at = (stage: string, status: Requirement["status"]) => ({ stage, status }) as Requirement;
  const list = [at("brief", "missing"), at("brief", "missing"), at("drift", "shown"), at("ground", "missing")];
  expect(missingByStage(list)).toEqual({ brief: 2, ground: 1 });
});
