/**
 * The core's answers about the reference model, as the API describes them: its lists of two and three numbers,
 * whose lengths its document states, are pairs and triples here.
 */
import type { components } from "../shared/api/schema";

type Schemas = components["schemas"];
type With<T, Parts> = Omit<T, keyof Parts> & Parts;
type Pair = [number, number];
type Triple = [number, number, number];

export type Axis = "X" | "Y";
export type ModelWarning = Schemas["ModelWarning"];
export type ModelFloor = With<Schemas["FloorOfModel"], { centre: Pair; corners: Pair[] }>;
export type Mode = With<Schemas["Mode"], { shape: Triple[] }>;
export type Kind = Mode["kind"];
export type InspectAnswer = With<Schemas["InspectAnswer"], { floors: ModelFloor[] }>;
export type ModalAnswer = With<
  Schemas["ModalAnswer"],
  { modes: Mode[]; floors: ModelFloor[]; centre: Pair; nodes?: { ids: string[]; shapes: Triple[][] } }
>;
export type TheirMode = Schemas["TheirMode"];
/** Of a recheck: the submitted modes, and beside ours where the reference model has been run. */
export type SubmittedModes = Schemas["SubmittedModes"];
