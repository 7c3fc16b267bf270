import { KEYMAP } from '../../kit/keymap.ts';
import type { Step } from '@jubb/sheet';
import { createContext, useContext, type ReactElement, type ReactNode } from 'react';
import { createPortal } from 'react-dom';
import Button from 'react-bootstrap/Button';
import { useKeys } from '../../kit/keys.ts';
import './recorders.scss';

/** Keys of what a step asks: of letters, those that the job does not have for itself (B, E to I, K to P, R, S, U, V, Y). */
type StepKey = 'a' | 'c' | 'd' | 't' | 'w' | 'x' | '+' | '-' | `${number}`;

export interface Act {
  readonly label: ReactNode;
  readonly run: () => void;
  /** Single key that does it, beside Space and Enter for the first act. */
  readonly key?: StepKey;
  readonly disabled?: boolean;
}

interface FirstAct extends Act {
  /** What is still to come before it can be done, where one cannot see that at a glance: said, and waited for. */
  readonly lacks?: readonly string[];
}

export interface RecorderProps {
  readonly step: Step;
}

interface LayoutProps {
  /** The figure that matters, large. */
  readonly number?: { readonly figure: string; readonly unit: string; readonly under?: ReactNode } | undefined;
  readonly say?: ReactNode;
  readonly children?: ReactNode;
  readonly drawing?: ReactNode;
  /** A drawing that wants the whole width, under the rest. */
  readonly wide?: ReactNode;
  readonly primary?: FirstAct | undefined;
  readonly others?: readonly Act[];
}

/** Where bench view wants its large keys; undefined on a page. */
export const BenchKeys = createContext<HTMLElement | null | undefined>(undefined);

export function useIsBench(): boolean {
  return useContext(BenchKeys) !== undefined;
}

/** The zones of a step: number, what is asked, drawing, keys. The same on a page and at the bench. */
export function RecorderLayout({ number, say, children, drawing, wide, primary, others = [] }: LayoutProps): ReactElement {
  const slot = useContext(BenchKeys);
  const isBench = slot !== undefined;
  const lacks = primary?.lacks ?? [];
  const waits = primary?.disabled === true || lacks.length > 0;
  const go = waits ? undefined : primary?.run;
  useKeys({ act: go, keep: go }, Object.fromEntries(others.map((act) => [act.key ?? '', act.disabled ? undefined : act.run])));
  const keys = (
    <div className={`keys step-keys ${!primary && others.length > 2 ? 'many' : ''}`}>
      {primary ? (
        <Button variant="primary" disabled={waits} onClick={primary.run}>
          {primary.label} {isBench ? <kbd className="hide-narrow">{KEYMAP.act.shown}</kbd> : null}
        </Button>
      ) : null}
      {others.map((act) => (
        <Button key={String(act.key ?? act.label)} variant="plain" disabled={act.disabled} onClick={act.run}>
          {act.label} {act.key ? <kbd className="hide-narrow">{act.key.toUpperCase()}</kbd> : null}
        </Button>
      ))}
    </div>
  );
  return (
    <>
      <div className="zones">
        <div className="asked">
          {number ? (
            <div className="number">
              {number.figure}
              <small>{number.unit}</small>
            </div>
          ) : null}
          {number?.under ? <div className="under mt-2">{number.under}</div> : null}
          {say ? <div className="say mt-2">{say}</div> : null}
          {children ? <div className="mt-3">{children}</div> : null}
          {lacks.length > 0 ? <p className="soft mt-2 mb-0">Still to come: {lacks.join('; ')}.</p> : null}
        </div>
        {drawing ? <div className="drawing">{drawing}</div> : null}
        {wide ? <div className="drawing wide">{wide}</div> : null}
      </div>
      {slot ? createPortal(keys, slot) : isBench ? null : keys}
    </>
  );
}
