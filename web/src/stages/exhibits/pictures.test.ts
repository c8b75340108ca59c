import { expect, test } from "vitest";
import { pastedPictures } from "./pictures";

const clipboard = (...files: File[]) => ({ files }) as unknown as DataTransfer;

test("a picture of the clipboard is named by when it was pasted", () => {
  const [file, ...more] = pastedPictures(clipboard(new File(["x"], "image.png", { type: "image/png" })), "14.05.09");
  expect(file?.name).toBe("pasted picture 14.05.09.png");
  expect(more).toEqual([]);
});

test("several pictures are numbered, and files of other kinds are not pictures", () => {
  const files = pastedPictures(
    clipboard(
      new File(["x"], "a", { type: "image/jpeg" }),
      new File(["x"], "b", { type: "application/pdf" }),
      new File(["x"], "c", { type: "image/png" }),
    ),
    "09.00.00",
  );
  expect(files.map((f) => f.name)).toEqual(["pasted picture 09.00.00, 1.jpg", "pasted picture 09.00.00, 2.png"]);
});

test("a clipboard without files gives none", () => {
  expect(pastedPictures(null, "")).toEqual([]);
});
