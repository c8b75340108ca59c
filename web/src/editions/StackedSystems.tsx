import { Button, Select } from "@mantine/core";
import type { Brief, Edition } from "../shared/api/client";
import { give, given, type Change } from "./places";

interface Stacked {
  lateral_system: string;
  from_story: string;
}

const INPUT = { name: "stacked_systems", part: "system" } as const;

/** Other systems higher up in a direction: the least R holds for the base shear. */
export function StackedSystems({ edition, brief, change }: { edition: Edition; brief: Brief; change: Change }) {
  const stories = (brief.stories ?? []).map((s) => s.name);
  const systems = edition.systems.map((s) => ({ value: s.id, label: s.title }));
  if (stories.length < 2) return null;
  return (
    <div className="stacked">
      {(["X", "Y"] as const).map((d) => {
        const list = (given(brief, edition.id, INPUT, d) as Stacked[] | null | undefined) ?? [];
        const set = (next: Stacked[]) => { change((b) => { give(b, edition.id, INPUT, d, next.length ? next : null); }); };
        return (
          <div key={d}>
            {list.map((s, i) => (
              <div key={i} className="stacked-row">
                <span className="quiet">{d}, from</span>
                <Select aria-label={`Story from which system ${String(i + 1)} above stands in ${d}`} w={90} allowDeselect={false} value={s.from_story} data={stories} onChange={(v) => { set(list.map((o, j) => (j === i ? { ...o, from_story: v ?? o.from_story } : o))); }} />
                <Select aria-label={`System ${String(i + 1)} above in ${d}`} w={330} searchable allowDeselect={false} value={s.lateral_system} data={systems} onChange={(v) => { set(list.map((o, j) => (j === i ? { ...o, lateral_system: v ?? o.lateral_system } : o))); }} />
                <Button variant="subtle" color="gray" size="compact-sm" onClick={() => { set(list.filter((_, j) => j !== i)); }}>remove</Button>
              </div>
            ))}
            <Button variant="subtle" size="compact-sm" onClick={() => { set([...list, { lateral_system: systems[0]?.value ?? "", from_story: stories[Math.floor(stories.length / 2)] ?? "" }]); }}>another system higher up in {d}</Button>
          </div>
        );
      })}
    </div>
  );
}
