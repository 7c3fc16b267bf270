import { Ellipsis, type LucideIcon } from 'lucide-react';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import type { Stage } from '@jubb/sheet';
import { Drawer } from '../kit/drawer.ts';
import { KeyCap } from '../kit/key-cap.tsx';
import type { KeyName } from '../kit/keymap.ts';
import type { JobActs } from './asks.ts';
import { STRIP_KEYS, TAKE_UP, stripKeys, type StripKeyName } from './strip-keys.ts';
import { useHere } from './use-job.ts';
import './key-strip.scss';

/** One more act behind "More", of the page that the strip is on. */
export interface MoreAct {
  readonly word: string;
  readonly sign: LucideIcon;
  readonly run: () => void;
  readonly cap?: KeyName;
}

interface KeyStripProps {
  readonly acts: JobActs;
  readonly stage: Stage;
  readonly more?: readonly MoreAct[];
  /** So many of the keys have room beside "More". */
  readonly most: number;
}

/** All keys of a job in one strip at the foot of the page, those of the stage first, the others behind "More". */
export function KeyStrip({ acts, stage, more = [], most }: KeyStripProps): ReactElement {
  const { state } = useHere();
  const { used, rest } = stripKeys(stage);
  const shown = state.handedOver ? [] : used.slice(0, most);
  const behind = state.handedOver ? [] : [...used.slice(shown.length), ...rest];
  return (
    <div className="key-strip no-print" role="group" aria-label="Keys of the job">
      {shown.map((name) => (
        <Key key={name} name={name} acts={acts} />
      ))}
      <MoreKeys names={behind} acts={acts} more={more} />
    </div>
  );
}

interface KeyProps {
  readonly name: StripKeyName;
  readonly acts: JobActs;
  readonly after?: () => void;
}

function Key({ name, acts, after }: KeyProps): ReactElement {
  const { job } = useHere();
  const { word, sign: Sign } = name === 'hold' && job.hold ? TAKE_UP : STRIP_KEYS[name];
  const run = (): void => {
    after?.();
    press(name, acts);
  };
  return (
    <Button variant="plain" onClick={run}>
      <Sign size={20} aria-hidden="true" /> {word} <KeyCap of={name} />
    </Button>
  );
}

function press(name: StripKeyName, { ask, photo, hold, strikeLast }: JobActs): void {
  switch (name) {
    case 'photo':
      return photo();
    case 'hold':
      return hold();
    case 'strike':
      return strikeLast();
    default:
      return ask({ what: name });
  }
}

interface MoreKeysProps {
  readonly names: readonly StripKeyName[];
  readonly acts: JobActs;
  readonly more: readonly MoreAct[];
}

function MoreKeys({ names, acts, more }: MoreKeysProps): ReactElement | null {
  const [isOpen, setOpen] = useState(false);
  if (names.length + more.length === 0) return null;
  const close = (): void => setOpen(false);
  return (
    <>
      <Button variant="plain" aria-expanded={isOpen} onClick={() => setOpen(true)}>
        <Ellipsis size={20} aria-hidden="true" /> More
      </Button>
      <Drawer show={isOpen} placement="bottom" onHide={close} className="more-keys" aria-label="More" restoreFocus>
        <Drawer.Header closeButton>
          <Drawer.Title as="h2">More</Drawer.Title>
        </Drawer.Header>
        <Drawer.Body>
          {names.map((name) => (
            <Key key={name} name={name} acts={acts} after={close} />
          ))}
          {more.map(({ word, sign: Sign, run, cap }) => (
            <Button
              key={word}
              variant="plain"
              onClick={() => {
                close();
                run();
              }}
            >
              <Sign size={20} aria-hidden="true" /> {word} {cap ? <KeyCap of={cap} /> : null}
            </Button>
          ))}
        </Drawer.Body>
      </Drawer>
    </>
  );
}
