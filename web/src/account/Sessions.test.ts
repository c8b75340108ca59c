import { expect, test } from "vitest";
import { browserOf } from "./Sessions";

test.each([
  [
    "Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/156.0.0.0 Safari/537.36",
    "Chromium or Chrome on Linux",
  ],
  [
    "Mozilla/5.0 (Windows NT 10.0; Win64; x64) AppleWebKit/537.36 Chrome/156.0 Safari/537.36 Edg/156.0",
    "Edge on Windows",
  ],
  [
    "Mozilla/5.0 (iPhone; CPU iPhone OS 19_0 like Mac OS X) AppleWebKit/605 Version/19 Mobile Safari/604",
    "Safari on iOS",
  ],
  ["Mozilla/5.0 (Macintosh; Intel Mac OS X 15.0; rv:150.0) Gecko/20100101 Firefox/150.0", "Firefox on macOS"],
  ["python-httpx/0.28", "python-httpx/0.28"],
  ["", "unknown"],
])("a browser by what it says of itself", (agent, told) => {
  expect(browserOf(agent)).toBe(told);
});
