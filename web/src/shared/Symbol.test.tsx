import { render } from "@testing-library/react";
import { expect, it } from "vitest";
import { SymbolText } from "./Symbol";

it("sets indices low, in symbols only", () => {
  const { container } = render(<SymbolText text="C_u T_a, S_DS (F_v) δ_max,x of file S0_final.csv" />);
  expect([...container.querySelectorAll("sub")].map((s) => s.textContent)).toEqual(["u", "a", "DS", "v", "max,x"]);
  expect(container.textContent).toBe("Cu Ta, SDS (Fv) δmax,x of file S0_final.csv");
});

it("writes at most and at least as one sign", () => {
  const { container } = render(<SymbolText text="S_S <= 0.15 and S_1 >= 0.6" />);
  expect(container.textContent).toBe("SS ≤ 0.15 and S1 ≥ 0.6");
});

it("sets the index of a symbol that is a function", () => {
  const { container } = render(<SymbolText text="factor on S_a(T) X" />);
  expect(container.querySelector("sub")?.textContent).toBe("a");
  expect(container.textContent).toBe("factor on Sa(T) X");
});
