import { useEffect, useRef } from 'react';

type Acts = Readonly<Record<string, (() => void) | undefined>>;

/** Space on a button or a link presses it, letters in a field are typed: keys of the page stay out of both. */
function isTaken(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement;
  if (target.closest('[role="dialog"]')) return true;
  if (/^(INPUT|TEXTAREA|SELECT)$/u.test(target.tagName) || target.isContentEditable) return true;
  return (event.key === ' ' || event.key === 'Enter') && /^(BUTTON|A|SUMMARY)$/u.test(target.tagName);
}

/** Single keys of a page, by their name in lower case; none while a dialog is open. */
export function useKeys(acts: Acts): void {
  const latest = useRef(acts);
  useEffect(() => {
    latest.current = acts;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return;
      const act = latest.current[event.key.toLowerCase()];
      if (!act || document.querySelector('.modal.show')) return;
      // A foot pedal sends PageDown and PageUp, wherever the focus is.
      if (isTaken(event) && !event.key.startsWith('Page')) return;
      event.preventDefault();
      act();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}
