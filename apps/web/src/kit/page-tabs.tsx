import { useLayoutEffect, useRef, type ReactElement, type ReactNode } from 'react';
import Nav from 'react-bootstrap/Nav';
import Tab from 'react-bootstrap/Tab';
import { useSearchParams } from 'react-router';
import './page-tabs.scss';

/** One thing of several that a page shows in the same place. */
export interface PageTab {
  readonly key: string;
  readonly name: string;
  /** How far it is, or how many there are. */
  readonly count?: string;
  readonly body: () => ReactNode;
}

interface Props {
  readonly id: string;
  readonly tabs: readonly PageTab[];
  /** What the place is called to whoever does not see it. */
  readonly label: (name: string) => string;
  /** What stands above stays in sight: the place scrolls by itself. */
  readonly isHigh?: boolean;
}

/** One thing at a time in one place of a page; which one is kept in the address. */
export function PageTabs({ id, tabs, label, isHigh = false }: Props): ReactElement | null {
  const [search, setSearch] = useSearchParams();
  const body = useRef<HTMLDivElement>(null);
  const names = useRef<HTMLDivElement>(null);
  const chosen = tabs.find((tab) => tab.key === search.get('tab')) ?? tabs[0];
  const key = chosen?.key;
  // The address changes a moment after the arrow was pressed: who went along the tabs by keys stays on the one that is open.
  useLayoutEffect(() => {
    if (names.current?.contains(document.activeElement)) names.current.querySelector<HTMLElement>('.active')?.focus();
  }, [key]);
  if (!chosen) return null;
  const choose = (next: string | null): void => {
    setSearch(
      (before) => {
        before.set('tab', next ?? '');
        return before;
      },
      { replace: true, preventScrollReset: true },
    );
    body.current?.scrollTo(0, 0);
  };
  return (
    <Tab.Container id={id} activeKey={chosen.key} onSelect={choose}>
      <Nav variant="underline" className="page-tabs" ref={names}>
        {tabs.map(({ key: own, name, count }) => (
          <Nav.Item key={own}>
            <Nav.Link as="button" type="button" eventKey={own}>
              {name} {count ? <span className="fig soft">{count}</span> : null}
            </Nav.Link>
          </Nav.Item>
        ))}
      </Nav>
      <Tab.Content
        className={isHigh ? 'page-tab-body page-tab-body-high' : 'page-tab-body'}
        ref={body}
        tabIndex={isHigh ? 0 : undefined}
        role="region"
        aria-label={label(chosen.name)}
      >
        <Tab.Pane eventKey={chosen.key} transition={false} active>
          {chosen.body()}
        </Tab.Pane>
      </Tab.Content>
    </Tab.Container>
  );
}
