import createClient, { type Middleware } from "openapi-fetch";
import type { components, paths } from "./schema";
import { strings } from "../strings";

export type Schemas = components["schemas"];
export type Session = Schemas["Session"];
export type Person = Schemas["Person"];
export type ReviewSummary = Schemas["Review"];
export type Review = Schemas["ReviewDetail"];
export type Brief = Schemas["Brief"];
export type Story = Schemas["Story"];
export type DirectionSystem = Schemas["DirectionSystem"];
export type System = Schemas["System"];
export type Site = Schemas["Site"];
export type Submission = Schemas["Submission"];
export type LoadCase = Schemas["Case"];
export type Exhibit = Schemas["Exhibit"];
export type ClaimTable = Schemas["Table"];
/** A table that was found in an exhibit. */
export type FoundTable = NonNullable<Exhibit["reading"]>["tables"][number];
/** A recheck as the screens have it: derivations are required one at a time. */
export type Recheck = Schemas["Sheet"];
export type Check = Schemas["CheckResult"];
/** Slips that give submitted numbers. */
export type Explanation = Schemas["CauseBase"];
export type Cause = Schemas["CauseResult"];
export type Causes = Schemas["Causes"];
export type Difference = Schemas["Difference"];
export type ComparedValue = Schemas["ComparedValue"];
export type History = Schemas["History"];
export type DeskRow = Schemas["DeskRow"];
export type CheckPage = Schemas["CheckPage"];
export type ChecksApart = Schemas["ChecksApart"];
export type CauseSearch = Schemas["CauseSearch"];
export type WhatIf = Schemas["WhatIf"];
export type Sensitivity = Schemas["Sensitivity"];
export type Step = Schemas["Step"];
export type Fact = Schemas["FactResult"];
export type StepValue = Schemas["StepValue"];
export type Finding = Schemas["Finding"];
export type TableRead = Schemas["TableRead"];
export type ReadTable = Schemas["ReadTableRequest"];
export type Reading = Schemas["Reading"];
export type Edition = Schemas["Edition"];
export type EditionInput = Schemas["EditionInput"];
export type Across = Schemas["Across"];
export type AcrossCell = Schemas["AcrossCell"];
export type Load = Schemas["Load"];
export type Need = Schemas["Need"];
export type ReferenceModel = Schemas["ReferenceModel"];
export type ModelState = Schemas["ModelState"];
export type Frame = Schemas["Frame"];
export type LateralLine = Schemas["LateralLine"];
export type Grid = Schemas["Grid"];
export type FrameTableRead = Schemas["FrameTableRead"];
export type Run = Schemas["AnsweredRun"];
export type Vocabulary = Schemas["Vocabulary"];
export type Printing = Schemas["Printing"];
export type Verdict = Check["verdict"];
export type Severity = "must" | "should" | "note";

export interface Problem {
  path: string;
  message: string;
  remedy: string;
}

/** What the server answers when something cannot be done: every problem with its place and its remedy. */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly problems: Problem[],
  ) {
    super(problems.map((t) => `${t.message}. ${t.remedy}`).join(" "));
  }
}

/** A cookie; behind TLS its name begins with `__Host-`. */
export function cookie(name: string): string {
  return document.cookie.match(new RegExp(`(?:^|; )(?:__Host-)?${name}=([^;]*)`))?.[1] ?? "";
}

const protect: Middleware = {
  onRequest({ request }) {
    if (request.method !== "GET") request.headers.set("X-CSRFToken", cookie("csrftoken"));
    return request;
  },
};

export const api = createClient<paths>({ baseUrl: window.location.origin, fetch: (request) => fetch(request) });
api.use(protect);

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** The data of an answer, or an ApiProblem. */
export async function answered<T>(asked: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await asked;
  } catch {
    throw new ApiProblem(0, [
      { path: "/", message: strings.theServerCantBeReached, remedy: strings.checkThatItIsRunning },
    ]);
  }
  if (answer.response.ok) return answer.data as T;
  const body = answer.error as { errors?: Problem[] } | undefined;
  throw new ApiProblem(
    answer.response.status,
    body?.errors ?? [
      {
        path: "/",
        message: strings.theServerAnswered(answer.response.status),
        remedy: strings.tryAgainNothingWasSaved,
      },
    ],
  );
}

const MAX_FILE = 20_000_000;
const MAX_PDF = 100_000_000;
const megabytes = (bytes: number) => String(Math.round(bytes / 1e6));

/** Upload a file (multipart, which the generated client does not write). */
export async function upload(review: string, file: File): Promise<Exhibit> {
  // the server refuses it unread, which a browser in the middle of sending only sees as a lost connection
  const most = file.name.toLowerCase().endsWith(".pdf") ? MAX_PDF : MAX_FILE;
  if (file.size > most) {
    throw new ApiProblem(413, [
      {
        path: "/file",
        message: strings.hasMbTheLimitIs(file.name, megabytes(file.size), megabytes(most)),
        remedy: strings.uploadOnlyTheTables,
      },
    ]);
  }
  return uploadTo<Exhibit>(`/api/reviews/${review}/exhibits/`, file);
}

/** Send a file and further fields to an address; what it answers. */
export async function uploadTo<T>(
  path: string,
  file: File | null,
  fields: Record<string, string> = {},
  name = "file",
): Promise<T> {
  const body = new FormData();
  if (file) body.append(name, file);
  for (const [name, value] of Object.entries(fields)) body.append(name, value);
  const response = await fetch(path, { method: "POST", body, headers: { "X-CSRFToken": cookie("csrftoken") } });
  const data: unknown = await response.json().catch(() => undefined);
  return answered<T>(Promise.resolve(response.ok ? { data: data as T, response } : { error: data, response }));
}
