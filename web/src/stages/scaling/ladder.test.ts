import { expect, it } from "vitest";
import type { Recheck } from "../../shared/api/client";
import { side } from "../../review/testing";
import { check } from "../../sheet/testing";
import { rungs } from "./ladder";

type Shears = NonNullable<NonNullable<Recheck["stages"]["scaling"]>["X"]>;

const SHEARS: Shears = {
  static_ours: 1000,
  static_theirs: 800,
  before_ours: 700,
  before_model: null,
  before_theirs: 80,
  after_theirs: 800,
  share: 1,
  floor: 1000,
  factor_required: 12.5,
  factor_used: 10,
  of_modes: [],
  taken_apart: [],
  checks: { static: "V_static.X", before: "V_dynamic.X", after: "V_scaled.X", factor: "scaled_by_factor_used.X" },
};

it("goes from the static base shear to the scaled one, and says where each deviation starts", () => {
  const off = side(700, -0.886, -30);
  const checks = [
    check({
      id: "V_static.X",
      verdict: "differs",
      role: "inherited",
      rests_on: ["F_v"],
      shown: "independent",
      independent: side(1000, -0.2, -20),
    }),
    check({ id: "V_dynamic.X", verdict: "differs", role: "origin", shown: "carried", carried: off }),
    check({ id: "V_scaled.X", verdict: "agrees" }),
    check({ id: "F_v", label: "F_v", direction: null, story: null, meaning: "Long-period site coefficient" }),
    check({ id: "scaled_by_factor_used.X", verdict: "breaches", role: "inherited" }),
  ];
  const ladder = rungs(SHEARS, checks);
  expect(ladder.map((r) => [r.name, r.value, r.out])).toEqual([
    ["static, ours", 1000, false],
    ["static, theirs", 800, true],
    ["modal before, ours", 700, false],
    ["modal before, theirs", 80, true],
    ["after, theirs", 800, true],
  ]);
  expect(ladder[1]?.says).toBe("−20.0 %, inherited from");
  expect(ladder[1]?.origins).toEqual([{ id: "F_v", label: "F_v", meaning: "Long-period site coefficient" }]);
  expect(ladder[3]?.says).toBe("−88.6 %, origin");
  expect(ladder[4]?.says).toContain("below the required base shear");
  // what stands below the edge opens the check of the factor
  expect(ladder[4]?.check).toBe("scaled_by_factor_used.X");
});

it("leaves out what nobody states, and calls what reaches the edge by its factor alone", () => {
  const ladder = rungs({ ...SHEARS, static_theirs: null, after_theirs: 1000, factor_used: 12.5 }, []);
  expect(ladder.map((r) => r.name)).not.toContain("static, theirs");
  expect(ladder.at(-1)?.says).toBe("12.50 × before");
});
