import { groupColours } from "./colours";

/** Entries of a legend for the groups of members, each with its colour. */
export function GroupLegend({ groups }: { groups: string[] }) {
  const colours = groupColours(groups);
  return groups.map((group) => (
    <span key={group}>
      <svg width={20} height={6} aria-hidden>
        <line x2={20} y1={3} y2={3} stroke={`var(--${colours[group] ?? "ink"})`} strokeWidth={2} />
      </svg>
      {group}
    </span>
  ));
}
