import { NavLink } from "react-router";

const PARTS = [
  ["/compare", "Standings"],
  ["/compare/sweeps", "Sweeps"],
  ["/compare/climbs", "Climbs"],
  ["/compare/claims", "Claims and range"],
  ["/compare/references", "References"],
] as const;

/** The parts of this station, on top of each of its lists. */
export function CompareNav() {
  return (
    <nav aria-label="Parts of Compare" className="border-b border-rule px-4 md:px-6">
      <ul className="flex flex-wrap gap-x-6">
        {PARTS.map(([to, name]) => (
          <li key={to}>
            <NavLink
              to={to}
              end
              className={({ isActive }) =>
                `-mb-px inline-block border-b-2 py-2 no-underline ${isActive ? "border-spruce font-bold text-spruce" : "border-transparent text-ink hover:border-rule"}`
              }
            >
              {name}
            </NavLink>
          </li>
        ))}
      </ul>
    </nav>
  );
}
