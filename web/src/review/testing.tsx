import { MantineProvider } from "@mantine/core";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render } from "@testing-library/react";
import type { ReactNode } from "react";
import { MemoryRouter } from "react-router";
import { vi } from "vitest";
import { ReviewProvider, type ReviewContext } from "./ReviewContext";
import type { Check, Recheck, Review, Step } from "../shared/api/client";

/** What the screens of a review start from, for tests: an open review without anything in it, unless changed. */
export function reviewContext(changes: Partial<ReviewContext> = {}): ReviewContext {
  return {
    review: { id: "r", title: "Gull Rock Station", submissions: [] } as unknown as Review,
    recheck: undefined,
    stored: undefined,
    assumedBrief: { edition: "asce7-16" },
    whatIf: undefined,
    flips: [],
    assume: vi.fn(),
    causes: undefined,
    causesPending: false,
    causeSearch: undefined,
    appliedCause: null,
    applyCause: vi.fn(),
    recheckedAt: 1,
    submission: undefined,
    findings: [],
    selected: undefined,
    select: vi.fn(),
    stepDeviation: vi.fn(),
    rows: [],
    shown: [],
    filter: { which: "all", code: "", direction: "", level: "" },
    setFilter: vi.fn(),
    folded: [],
    fold: vi.fn(),
    ...changes,
  };
}

/** Render with everything that the application is in. */
export function show(children: ReactNode, path = "/reviews/r/sheet", context = reviewContext()) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false }, mutations: { retry: false } } });
  return render(
    <MantineProvider env="test">
      <QueryClientProvider client={client}>
        <MemoryRouter initialEntries={[path]}>
          <ReviewProvider value={context}>{children}</ReviewProvider>
        </MemoryRouter>
      </QueryClientProvider>
    </MantineProvider>,
  );
}

export interface Asked {
  method: string;
  path: string;
  body: unknown;
}

/** A server that answers each request by its method and path; gives the list of what was asked. */
export function server(answers: Record<string, (body: unknown) => [number, unknown]>): Asked[] {
  const asked: Asked[] = [];
  vi.stubGlobal("fetch", async (to: Request | string, init?: RequestInit) => {
    const request = typeof to === "string" ? new Request(new URL(to, "http://localhost"), init) : to;
    const text = await request.text();
    const body: unknown = text ? JSON.parse(text) : undefined;
    const path = new URL(request.url, "http://localhost").pathname;
    asked.push({ method: request.method, path, body });
    const answer = answers[`${request.method} ${path}`];
    if (!answer) return new Response("{}", { status: 404, headers: { "Content-Type": "application/json" } });
    const [status, data] = answer(body);
    return new Response(JSON.stringify(data), { status, headers: { "Content-Type": "application/json" } });
  });
  return asked;
}

export function step(changes: Partial<Step>): Step {
  return {
    id: "V.X",
    quantity: "V",
    direction: "X",
    case: null,
    symbol: "V",
    symbol_tex: "V",
    meaning: "Base shear",
    unit: "kN",
    value: 380,
    source: "rule",
    clause: "12.8.1",
    tex: "",
    inputs: [],
    governed_by: null,
    candidates: [],
    margin: null,
    ...changes,
  };
}

export const source = { file: "S0-parameters.xlsx", sheet: "Seismic", row: 9, column: "B", note: "" };

export const side = (value: number | string, deviation: number | null, multiples: number) => ({
  value,
  deviation,
  multiples,
  tolerance: 1,
  agrees: Math.abs(multiples) <= 1,
});

/** A recheck of two stories around the given checks and steps. */
export function recheckOf(checks: Check[], steps: Step[] = []): Recheck {
  return {
    engine: "test",
    edition: "asce7-16",
    submission: "S0",
    stories: ["L1", "L2"],
    checks,
    origins: checks.filter((c) => c.role === "origin").map((c) => c.id),
    counts: { agrees: 0, differs: 0, breaches: 0, question: 0, note: 0, gap: 0, open: 0 },
    coverage: {
      claims: checks.length,
      rechecked: checks.length,
      recomputed: 0,
      independent: checks.length,
      requirements: 0,
      shown: 0,
      missing: 0,
      unchecked: [],
      reasons: [],
      not_rechecked: [],
    },
    requirements: [],
    values: steps.map(({ id, value, source }) => ({ id, value, source })),
    modes: null,
    stages: { scaling: null, twist: null, drift: null },
    facts: [],
    notes: [],
    two_stage: { X: null, Y: null },
  };
}
