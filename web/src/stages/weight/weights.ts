import { theirsOf, trackOf, type Track } from "../../heightlog/data";
import type { ModelFloor } from "../../model/answers";
import type { Recheck } from "../../shared/api/client";
import { GRAVITY } from "../../shared/gravity";
import { figures } from "../../shared/numbers";
import { strings } from "./strings";

/** Static weight, and mass × g of both analyses with our static weight to hold it against; kN. */
export function weightTracks(recheck: Recheck, floors: readonly ModelFloor[]): Track[] {
  const adopted = recheck.values.find((s) => s.id === "w")?.source === "adopted";
  const w = trackOf(recheck, "w", "X");
  // weights that we took over from them are not ours
  const ours = adopted ? w.ours.map(() => null) : w.ours;
  const mass = theirsOf(
    recheck,
    recheck.checks.filter((c) => c.quantity === "m"),
  );
  const theirs = mass.theirs.map((m) => (m === null ? null : m * GRAVITY));
  return [
    { ...w, title: strings.staticWeight, ours },
    {
      ...mass,
      title: strings.massG,
      unit: "kN",
      shape: "bars",
      adds: true,
      theirs,
      texts: theirs.map((v) => (v === null ? "–" : figures(v))),
      ours: recheck.stories.map((name) => {
        const floor = floors.find((f) => f.name === name);
        return floor ? floor.mass * GRAVITY : null;
      }),
      against: { title: strings.ourStaticWeight, values: ours },
    },
  ];
}
