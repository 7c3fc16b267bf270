import { KEYMAP, type KeyName } from './keymap.ts';
import { mayBegin, type Quantity } from '@jubb/core';
import { createContext, useContext, useLayoutEffect, useRef } from 'react';

type Act = (() => void) | undefined;
type Acts = Readonly<Partial<Record<KeyName, Act>>>;
/** Letters of a single step, by themselves: what they do is said beside them. */
type Letters = Readonly<Record<string, Act>>;

function byKey(acts: Acts, letters: Letters): Letters {
  const named = Object.entries(acts).flatMap(([name, act]) => KEYMAP[name as KeyName].keys.map((key) => [key, act] as const));
  return { ...Object.fromEntries(named), ...letters };
}

function isField(target: HTMLElement): boolean {
  return /^(INPUT|TEXTAREA|SELECT)$/u.test(target.tagName) || target.isContentEditable;
}

const OFTEN_MIXED_UP: readonly Quantity[] = ['length', 'torque'];

/** A letter or a blank that no figure in this field can go on with is the page's: no size begins with one, and none has an X in it. */
function isNoFigure({ inputMode, value, selectionStart, dataset }: HTMLInputElement, key: string): boolean {
  if (inputMode !== 'decimal' || !/^[a-z? ]$/iu.test(key)) return false;
  if (key === ' ') return value === '';
  const { quantity } = dataset;
  if (quantity === undefined) return value === '';
  if (selectionStart !== value.length) return false;
  // A size typed where a torque is asked is told, not taken for a key.
  return ![quantity as Quantity, ...(value === '' ? [] : OFTEN_MIXED_UP)].some((one) => mayBegin(value + key, one));
}

/** Space on a button or a link presses it, letters in a field are typed: keys of the page stay out of both. */
function isTaken(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement;
  if (target.closest('[role="dialog"]')) return true;
  if (target instanceof HTMLInputElement && isNoFigure(target, event.key)) return false;
  if (isField(target)) return true;
  return (event.key === ' ' || event.key === 'Enter') && /^(BUTTON|A|SUMMARY)$/u.test(target.tagName);
}

/** Whatever is drawn under it hears no keys: a picture of a page is no page. */
export const KeysOff = createContext(false);

/** Single keys of a page, by what they do, and the letters of a step; none while a dialog is open. */
export function useKeys(acts: Acts, letters: Letters = {}): void {
  const isOff = useContext(KeysOff);
  const latest = useRef<Letters>({});
  // Before the next key can come: two quick presses are two acts, never the first one twice.
  useLayoutEffect(() => {
    latest.current = isOff ? {} : byKey(acts, letters);
  });
  // With the first paint, not after it: a key that comes at once is heard.
  useLayoutEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      // A key that is held down is one press: an act is never done twice by a heavy hand.
      if (event.repeat || event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return;
      if (document.querySelector('.modal.show, .offcanvas.show')) return;
      // Out of a field first, so that the single keys are the page's again.
      const target = event.target as HTMLElement;
      if (event.key === 'Escape' && isField(target)) return target.blur();
      const act = latest.current[event.key.toLowerCase()];
      if (!act) return;
      // A foot pedal sends PageDown and PageUp, wherever the focus is.
      if (isTaken(event) && !event.key.startsWith('Page')) return;
      event.preventDefault();
      act();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}
