import { readFileSync, readdirSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';

/** Bootstrap asks for it and sets it only where a theme wants it. */
const LEFT_OPEN = '--bs-body-text-align';
const ASSETS = new URL('../apps/web/dist/assets/', import.meta.url);
const SOURCES = new URL('../apps/web/src/', import.meta.url);
const css = readdirSync(ASSETS)
  .filter((name) => name.endsWith('.css'))
  .map((name) => readFileSync(new URL(name, ASSETS), 'utf8'))
  .join('\n');

test('every variable that a built stylesheet asks for is set by one of them', () => {
  const all = (pattern: RegExp): Set<string> => new Set([...css.matchAll(pattern)].map(([, name = '']) => name));
  const set = all(/(--[\w-]+)\s*:/gu);
  const asked = all(/var\((--[\w-]+)\)/gu);
  expect(asked.size).toBeGreaterThan(50);
  expect([...asked].filter((name) => !set.has(name))).toEqual([LEFT_OPEN]);
});

describe('what is not spelt out in a page is not taken out of its stylesheet', () => {
  /** Classes that React-Bootstrap's components give themselves. */
  const CLASSES: Readonly<Record<string, string>> = {
    Button: 'btn',
    Collapse: 'collapsing',
    Dropdown: 'dropdown-menu',
    DropdownItem: 'dropdown-item',
    FormCheck: 'form-check',
    FormCheckInput: 'form-check-input',
    FormControl: 'form-control',
    FormLabel: 'form-label',
    FormSelect: 'form-select',
    InputGroup: 'input-group-text',
    Modal: 'modal-dialog',
    Nav: 'nav-link',
    Offcanvas: 'offcanvas-body',
    ProgressBar: 'progress-bar',
    Spinner: 'spinner-border',
    Table: 'table',
    Toast: 'toast',
  };
  const used = new Set(
    readdirSync(SOURCES, { recursive: true, encoding: 'utf8' })
      .filter((name) => /\.tsx?$/u.test(name))
      .flatMap((name) =>
        [...readFileSync(new URL(name, SOURCES), 'utf8').matchAll(/'react-bootstrap\/(\w+)'/gu)].map(([, one = '']) => one),
      ),
  );

  test.each(Object.entries(CLASSES))('%s keeps its look', (component, name) => {
    expect([...used]).toContain(component);
    expect(css).toMatch(new RegExp(`\\.${name}[ ,:{>.\\[]`, 'u'));
  });

  test('the look of the heads of tables is set where it is', () => {
    expect(/\.btn-head\{[^}]*\}/u.exec(css)?.[0]).toContain('--bs-btn-padding-x:0');
  });
});
