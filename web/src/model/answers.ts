/** The core's answers about the reviewer's own model, as the screens read them. */

export type Axis = "X" | "Y";
export type Kind = "X" | "Y" | "twist" | "mixed" | "local";

export interface ModelWarning {
  code: string;
  message: string;
  cause: string;
  remedy: string;
  path: string;
  stops: boolean;
  nodes: string[];
  members: string[];
}

export interface ModelFloor {
  name: string;
  z: number;
  height: number;
  centre: [number, number];
  mass: number;
  inertia: number;
  corners: [number, number][];
  rigid: boolean;
}

export interface Mode {
  T: number;
  f: number;
  mass_ratio: { X: number; Y: number; RZ: number };
  kind: Kind;
  /** X, Y (m) and RZ of each floor, bottom to top */
  shape: [number, number, number][];
}

export interface ModalAnswer {
  modes: Mode[];
  cumulative: { X: number[]; Y: number[]; RZ: number[] };
  enough: Record<Axis, boolean>;
  target: number;
  reached_at: Record<Axis, number | null>;
  mass: { X: number; Y: number; RZ: number };
  centre: [number, number];
  rayleigh: Record<Axis, number | null>;
  counted_by: string;
  floors: ModelFloor[];
  warnings: ModelWarning[];
  nodes?: { ids: string[]; shapes: [number, number, number][][] };
}

export interface InspectAnswer {
  usable: boolean;
  warnings: ModelWarning[];
  degrees_of_freedom: number | null;
  mass: Record<string, number | string | [number, number]>[];
  floors: ModelFloor[];
}

export interface TheirMode {
  mode: number;
  T: number | null;
  mass_ratio: Partial<Record<"X" | "Y" | "RZ", number>>;
  shape: { story: string; X: number | null; Y: number | null; RZ: number | null }[] | null;
}

/** Of a recheck: the submitted modes, and beside ours where our own model has been run. */
export interface SubmittedModes {
  theirs: TheirMode[];
  comparison: {
    rows: { ours: number; theirs: number | null; mac: number | null; likeness: number | null }[];
    unmatched: number[];
    missing: number[];
    swapped: boolean;
    sums: Record<"X" | "Y" | "RZ", number | null>;
    enough: Record<Axis, boolean | null>;
  } | null;
  target: number | null;
}
