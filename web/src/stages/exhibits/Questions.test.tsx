import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it, vi } from "vitest";
import { show } from "../../review/testing";
import { Questions } from "./Questions";
import type { Choice, Question } from "./reading";

const choice = (label: string): Choice => ({ label }) as Choice;
const question = (changes: Partial<Question>): Question => ({
  row: null,
  column: null,
  message: "",
  remedy: "",
  holds_up: true,
  extent: "table",
  choices: [],
  ...changes,
});

const TWO = [
  question({
    message: "the unit of the drifts is not stated",
    remedy: "Choose a unit.",
    choices: [choice("mm"), choice("m")],
  }),
  question({ row: 6, column: 2, message: "'13'6' is not a number", remedy: "Correct it or exclude the row." }),
];

function list(problems = TWO) {
  const [onAnswer, onShow, onCase] = [vi.fn(), vi.fn(), vi.fn()];
  show(<Questions problems={problems} onAnswer={onAnswer} onShow={onShow} onCase={onCase} />);
  return { onAnswer, onShow, onCase };
}

it("offers the answers of the first question, the likeliest first", async () => {
  const { onAnswer } = list();
  expect(screen.getByText("2 questions to answer before this table can be accepted")).toBeInTheDocument();
  expect(screen.getAllByRole("button").map((b) => b.textContent)).toEqual(["mm", "m"]);
  await userEvent.click(screen.getByRole("button", { name: "m" }));
  expect(onAnswer).toHaveBeenCalledExactlyOnceWith(TWO[0]?.choices[1]);
});

it("is answered by the number of an answer", async () => {
  const { onAnswer } = list();
  await userEvent.keyboard("1");
  expect(onAnswer).toHaveBeenCalledExactlyOnceWith(TWO[0]?.choices[0]);
  await userEvent.keyboard("3");
  expect(onAnswer).toHaveBeenCalledTimes(1);
});

it("goes to the next question and shows its row", async () => {
  const { onShow } = list();
  await userEvent.keyboard("n");
  expect(onShow).toHaveBeenCalledExactlyOnceWith(6);
  expect(screen.queryByRole("button", { name: "mm" })).not.toBeInTheDocument();
  await userEvent.keyboard("n");
  expect(screen.getByRole("button", { name: "mm" })).toBeInTheDocument();
});

it("lets a case be named where rows have none", async () => {
  const { onCase } = list([question({ message: "the load case of these rows is not stated", remedy: "Name it." })]);
  const button = screen.getByRole("button", { name: /all rows belong to it/i });
  expect(button).toBeDisabled();
  await userEvent.type(screen.getByLabelText("Name of the case"), " Static X {Enter}");
  expect(onCase).toHaveBeenCalledExactlyOnceWith("Static X");
});

it("is not there without questions", () => {
  list([]);
  expect(screen.queryByRole("alert")).not.toBeInTheDocument();
});
