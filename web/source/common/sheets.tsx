import { NavLink } from 'react-router';

/** The sheets of a component, as words beside its name. */
export function Sheets({ system, component }: { system: string; component: string }) {
  const base = `/${system}/${component}`;
  return (
    <nav className="sheets" aria-label="Sheets">
      <NavLink to={base} end>
        Plates
      </NavLink>
      <NavLink to={`${base}/anatomy`}>Anatomy</NavLink>
      <NavLink to={`${base}/space`}>Space</NavLink>
      <NavLink to={`${base}/content`}>Content</NavLink>
      <NavLink to={`${base}/rules`}>Rules</NavLink>
    </nav>
  );
}
