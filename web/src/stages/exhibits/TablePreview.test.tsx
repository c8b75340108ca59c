import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it, vi } from "vitest";
import type { Reading, TableRead } from "../../shared/api/client";
import { server, show } from "../../review/testing";
import { TablePreview } from "./TablePreview";

const READ: TableRead = {
  kind: "stories",
  sheet: "pasted",
  sheets: ["pasted"],
  columns: [
    { name: "story", title: "story", required: true, units: [] },
    { name: "h", title: "story height", required: true, units: ["m", "ft"] },
    { name: "w", title: "seismic weight", required: false, units: ["kN", "kip"] },
  ],
  rows: [
    ["Story", "Height (m)", "Weight"],
    ["L1", "-4", "100"],
    ["Total", "", "100"],
  ],
  row_count: 3,
  reading: {
    header_row: 0,
    columns: { story: 0, h: 1, w: 2 },
    units: { h: "m" },
    cases: {},
    order: "bottom_up",
    both: false,
  },
  profile: null,
  problems: [
    {
      row: 0,
      column: 2,
      message: "the unit of seismic weight is missing",
      remedy: "Choose the unit: kN, kip.",
      holds_up: true,
      extent: "table",
      choices: [
        { label: "kN", sets: { units: { w: "kN" } } },
        { label: "kip", sets: { units: { w: "kip" } } },
      ],
    },
    {
      row: 1,
      column: 1,
      message: "story height is -4; it has to be above zero",
      remedy: "Mend the value.",
      holds_up: true,
      extent: "table",
      choices: [],
    },
  ],
  skipped: [0, 2],
  looks_like: "stories",
  why: { w: ["unit kN: from a note on the table"] },
  unsure: ["w"],
  beside: [{ row: 1, column: 2, text: "950" }],
  unused: [],
  scanned: [],
  page: null,
  shift: [0, 0],
  claims: 1,
  cases: 0,
};

function preview(read: (reading: Reading | null) => TableRead | null, accept: [number, unknown] = [201, {}]) {
  const on = { close: vi.fn(), accepted: vi.fn() };
  const asked = server({
    "GET /api/vocabulary/": () => [200, { tables: [{ id: "stories", title: "stories" }] }],
    "POST /api/reviews/r/tables/read/": (body) => {
      const answer = read((body as { reading: Reading | null }).reading);
      return answer
        ? [200, answer]
        : [
            422,
            {
              errors: [{ path: "/text", message: "no columns were found in it", remedy: "Copy the cells of a table." }],
            },
          ];
    },
    "POST /api/reviews/r/tables/": () => accept,
  });
  show(
    <TablePreview
      source={{ review: "r", name: "pasted table 1", text: "Story\tHeight (m)\tWeight" }}
      onClose={on.close}
      onAccepted={on.accepted}
    />,
  );
  return { on, asked };
}

it("marks each problem in its cell and takes nothing", async () => {
  preview(() => READ);
  // the one below the questions: the first question shows its cells too
  const cell = (await screen.findAllByRole("cell", { name: /^-4/ })).at(-1);
  expect(cell?.className).toBe("bad");
  expect(cell).toHaveTextContent("it has to be above zero");
  expect(screen.getByRole("alert")).toHaveTextContent("2 questions to answer before this table can be accepted");
  expect(screen.getByRole("alert")).toHaveTextContent(
    "Row 1, column C: the unit of seismic weight is missing. Choose the unit: kN, kip.",
  );
  expect(screen.getByRole("button", { name: "Accept 1 value" })).toBeDisabled();
});

it("shows which rows are excluded", async () => {
  preview(() => READ);
  const total = (await screen.findAllByRole("cell", { name: "Total" })).at(-1)?.closest("tr");
  expect(total?.className).toBe("skipped");
});

it("asks for the missing unit at its column and reads again with it", async () => {
  const { asked } = preview((reading) => (reading?.units?.w ? { ...READ, problems: [], claims: 2 } : READ));
  await userEvent.click(await screen.findByRole("combobox", { name: "Unit of seismic weight" }));
  await userEvent.click(within(screen.getByRole("listbox")).getByText("kip"));
  await waitFor(() => {
    expect(screen.getByRole("button", { name: "Accept 2 values" })).toBeEnabled();
  });
  expect(asked.at(-1)?.body).toMatchObject({
    reading: { units: { w: "kip" } },
  });
});

it("points at another column", async () => {
  const { asked } = preview((reading) => ({ ...READ, reading: { ...READ.reading, ...reading } }));
  await userEvent.click(await screen.findByRole("combobox", { name: "Column C contains" }));
  await userEvent.click(within(screen.getByRole("listbox")).getByText("story height"));
  // a column holds one thing, and one thing is in one column
  await waitFor(() => {
    expect(asked.at(-1)?.body).toMatchObject({ reading: { columns: { story: 0, h: 2 } } });
  });
});

it("accepts with one key", async () => {
  const good = { ...READ, problems: [], claims: 2 };
  const { on, asked } = preview(() => good);
  await screen.findByRole("button", { name: "Accept 2 values" });
  await userEvent.keyboard("{Control>}{Enter}{/Control}");
  await waitFor(() => {
    expect(on.accepted).toHaveBeenCalledOnce();
  });
  expect(asked.at(-1)).toMatchObject({
    path: "/api/reviews/r/tables/",
    body: { kind: "stories", name: "pasted table 1" },
  });
});

it("says why a table is not accepted and keeps it open", async () => {
  const refused = {
    errors: [
      {
        path: "/table",
        message: "a value of this table was accepted before in this submission",
        remedy: "Remove the first.",
      },
    ],
  };
  const { on } = preview(() => ({ ...READ, problems: [], claims: 2 }), [409, refused]);
  await userEvent.click(await screen.findByRole("button", { name: "Accept 2 values" }));
  expect(await screen.findByText(/was accepted before in this submission/)).toBeInTheDocument();
  expect(on.accepted).not.toHaveBeenCalled();
});

it("says what cannot be read as a table, and leads back", async () => {
  const { on } = preview(() => null);
  expect(await screen.findByRole("alert")).toHaveTextContent("No columns were found in it. Copy the cells of a table.");
  await userEvent.click(screen.getByRole("button", { name: "Back" }));
  expect(on.close).toHaveBeenCalledOnce();
});

it("asks how decimals are written and which story is the lowest, and reads again with the answer", async () => {
  const question = (message: string) => ({
    row: 0,
    column: 1,
    message,
    remedy: "Say it.",
    holds_up: true,
    extent: "table" as const,
    choices: [],
  });
  const open = [
    question("it is not clear how the numbers are written: '3,600' can be 3600 or 3.600"),
    question("it is not clear which of the stories is the lowest"),
  ];
  const { asked } = preview((reading) =>
    reading?.numbers
      ? { ...READ, problems: [], reading: { ...READ.reading, numbers: reading.numbers } }
      : { ...READ, problems: open },
  );
  const decimals = await screen.findByRole("combobox", { name: "How decimals are written" });
  expect(screen.getByRole("combobox", { name: "Order of the stories" })).toHaveValue("");
  await userEvent.click(decimals);
  await userEvent.click(await screen.findByRole("option", { name: "as in 1.234,5" }));
  await waitFor(() => {
    expect(asked.at(-1)?.body).toMatchObject({ reading: { numbers: "comma" } });
  });
  await waitFor(() => {
    expect(screen.getByRole("combobox", { name: "Order of the stories" })).toHaveValue("bottom story first");
  });
});

it("answers a question by its number and takes the answer back", async () => {
  const { asked } = preview((reading) =>
    reading?.units?.w
      ? { ...READ, reading: { ...READ.reading, units: { h: "m", ...reading.units } }, problems: [], claims: 2 }
      : READ,
  );
  await screen.findByRole("button", { name: "kN" });
  await userEvent.keyboard("2");
  await waitFor(() => {
    expect(asked.at(-1)?.body).toMatchObject({ reading: { units: { w: "kip" } } });
  });
  await userEvent.click(await screen.findByRole("button", { name: "Undo" }));
  expect(await screen.findByRole("button", { name: "kN" })).toBeInTheDocument();
});

it("leaves a row out and takes it back by its number", async () => {
  const { asked } = preview((reading) => ({ ...READ, skipped: reading?.left_out?.length ? [0, 1, 2] : [0, 2] }));
  await userEvent.click(await screen.findByRole("button", { name: "Exclude row 2" }));
  await waitFor(() => {
    expect(asked.at(-1)?.body).toMatchObject({ reading: { left_out: [1] } });
  });
  await userEvent.click(await screen.findByRole("button", { name: "Include row 2" }));
  await waitFor(() => {
    expect(asked.at(-1)?.body).toMatchObject({ reading: { left_out: [], taken_in: [] } });
  });
  await userEvent.click(await screen.findByRole("button", { name: "Include row 3" }));
  await waitFor(() => {
    expect(asked.at(-1)?.body).toMatchObject({ reading: { taken_in: [2] } });
  });
});

it("says why a column is read so, what the brief has beside a value, and what a table looks like", async () => {
  preview(() => ({ ...READ, kind: "stories", looks_like: "modes" }));
  expect(await screen.findByText("unit kN: from a note on the table")).toHaveClass("unsure");
  expect(screen.getByTitle("as in the brief")).toHaveTextContent("950");
  expect(screen.getByText(/This looks like modes/)).toBeInTheDocument();
});

it("accepts the rest where a row has a question, and says what stays open", async () => {
  const problems = READ.problems.slice(1).map((p) => ({ ...p, holds_up: false, extent: "row" as const }));
  const { on, asked } = preview(() => ({ ...READ, problems, claims: 8 }));
  expect(await screen.findByRole("alert")).toHaveTextContent(
    "The table can be accepted now: 1 row with questions would not be read.",
  );
  await userEvent.click(screen.getByRole("button", { name: "Accept 8 values, leave 1 row open" }));
  await waitFor(() => {
    expect(on.accepted).toHaveBeenCalledOnce();
  });
  expect(asked.at(-1)?.body).toMatchObject({ kind: "stories", partly: true });
});

it("lists columns of numbers that are not used, and uses one as what it is", async () => {
  const columns = { story: 0, h: 1 };
  const { asked } = preview(() => ({
    ...READ,
    problems: [],
    reading: { ...READ.reading, columns },
    unused: [{ column: 2, heading: "Weight" }],
  }));
  await userEvent.click(await screen.findByRole("button", { name: "Weight" }));
  await userEvent.click(await screen.findByRole("menuitem", { name: "seismic weight" }));
  await waitFor(() => {
    expect(asked.at(-1)?.body).toMatchObject({ reading: { columns: { story: 0, h: 1, w: 2 } } });
  });
});

it("asks what a table is, and reads it as the kind that is chosen", async () => {
  const problem = {
    row: null,
    column: null,
    message: "it is not clear what this table is",
    remedy: "Choose its kind, or exclude it.",
    holds_up: true,
    extent: "table" as const,
    choices: [{ label: "story drifts by case", sets: { kind: "drifts" } }],
  };
  const { asked } = preview(() => ({ ...READ, problems: [problem] }));
  await userEvent.click(await screen.findByRole("button", { name: "story drifts by case" }));
  await waitFor(() => {
    expect(asked.at(-1)?.body).toMatchObject({ kind: "drifts", reading: null });
  });
});

it("shows the confidence of what was read off an image", async () => {
  preview(() => ({ ...READ, problems: [], scanned: [{ row: 1, column: 2, confidence: 0.934 }] }));
  const mark = await screen.findByTitle("read off an image with 93 % confidence");
  expect(mark).toHaveTextContent("93 %");
  expect(mark.closest("td")).toHaveTextContent(/^100/);
});
