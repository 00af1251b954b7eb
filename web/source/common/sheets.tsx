import { NavLink, useNavigate } from 'react-router';
import { useCarried } from '../data/address';
import { usePageKeys } from './shortcuts';

/** The sheets of a component, in the order of their keys. */
export const SHEETS = [
  { path: '', title: 'Plates' },
  { path: '/anatomy', title: 'Anatomy' },
  { path: '/space', title: 'Space' },
  { path: '/content', title: 'Content' },
  { path: '/behaviour', title: 'Behaviour' },
  { path: '/rules', title: 'Rules' },
] as const;

/** The sheets of a component, as words beside its name. */
export function Sheets({ system, component }: { system: string; component: string }) {
  const navigate = useNavigate();
  const carried = useCarried();
  const sheets = SHEETS.map(({ path, title }, at) => ({
    title,
    key: String(at + 1),
    to: `/${system}/${component}${path}${carried}`,
  }));
  usePageKeys(Object.fromEntries(sheets.map(({ key, to }) => [key, () => void navigate(to)])));
  return (
    <nav className="sheets" aria-label="Sheets">
      {sheets.map(({ title, key, to }) => (
        <NavLink key={key} to={to} end title={`key ${key}`}>
          {title}
        </NavLink>
      ))}
    </nav>
  );
}
