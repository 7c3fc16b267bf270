import type { ReactElement } from 'react';
import Nav from 'react-bootstrap/Nav';
import { NavLink } from 'react-router';
import './shop.scss';

const PLACES = [
  ['/shop/begin', 'Setting up'],
  ['/shop', 'Prices and rules'],
  ['/shop/people', 'People'],
  ['/shop/benches', 'Benches'],
  ['/shop/network', 'On the network'],
  ['/shop/tablets', 'Tablets and log-ins'],
  ['/shop/bring', 'Bring in a list'],
  ['/shop/changes', 'What was changed'],
] as const;

/** The pages of the shop itself. */
export function ShopPlaces(): ReactElement {
  return (
    <Nav className="shop-places" as="nav" aria-label="The shop">
      {PLACES.map(([to, words]) => (
        <Nav.Item key={to}>
          <NavLink to={to} end className="nav-link">
            {words}
          </NavLink>
        </Nav.Item>
      ))}
    </Nav>
  );
}
