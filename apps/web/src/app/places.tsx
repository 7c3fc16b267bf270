import { BookOpen, Briefcase, Calculator, GraduationCap, House, Package, Wrench } from 'lucide-react';
import type { ReactElement } from 'react';
import Nav from 'react-bootstrap/Nav';
import { NavLink } from 'react-router';

const PLACES = [
  ['/', 'Today', House],
  ['/jobs', 'Jobs', Briefcase],
  ['/sheets', 'Sheets', BookOpen],
  ['/workings', 'Workings', Calculator],
  ['/stores', 'Stores', Package],
  ['/crib', 'Crib', Wrench],
  ['/learn', 'Learn', GraduationCap],
] as const;

/** The places of the shop, in the rail or in the drawer. */
export function Places({ onGo }: { readonly onGo?: () => void }): ReactElement {
  return (
    <Nav as="nav" className="places" aria-label="Places">
      {PLACES.map(([to, name, Sign]) => (
        <NavLink key={to} to={to} end={to === '/'} onClick={onGo}>
          <Sign size={18} aria-hidden="true" /> {name}
        </NavLink>
      ))}
    </Nav>
  );
}
