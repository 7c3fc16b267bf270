import { isKind, readLedgerLine, type LedgerField, type LedgerLine } from '@jubb/book';
import { useEffect, useId, useRef, useState, type FormEvent, type ReactElement } from 'react';
import FormLabel from 'react-bootstrap/FormLabel';
import FormControl from 'react-bootstrap/FormControl';
import Button from 'react-bootstrap/Button';
import { useHere } from '../../job/use-job.ts';
import { useDraft } from '../../kit/prefs.ts';
import { PhotoMap, type Spot } from './photo-map.tsx';

type Field = LedgerField | 'name';

const FIELDS: readonly (readonly [field: Field, label: string, longest: number])[] = [
  ['name', 'What', 200],
  ['size', 'Size', 60],
  ['place', 'From', 100],
  ['tray', 'Tray', 60],
  ['direction', 'Sits', 100],
  ['mark', 'Marked', 200],
  ['condition', 'Looks', 200],
  ['stack', 'Stack', 60],
];

interface Typed {
  readonly text: string;
  /** Where each of them was, on the newest photo of the job. */
  readonly spots?: readonly Spot[];
  /** What was put right by hand: it stands over what was read from the line. */
  readonly fixed: Readonly<Partial<Record<Field, string>>>;
}

const NOTHING: Typed = { text: '', fixed: {} };

interface FreeLineProps {
  /** The assembly that was opened: what is typed came out of it. */
  readonly inside?: { readonly id: string; readonly name: string } | undefined;
  readonly onLeave?: (() => void) | undefined;
  readonly focus?: boolean;
}

/** A line of one's own: typed as it is said, shown taken apart, put right where it was read wrong. */
export function FreeLine({ inside, onLeave, focus = false }: FreeLineProps): ReactElement {
  const { job, state, keep } = useHere();
  const [typed, setTyped] = useDraft<Typed>(`${job.id}.ledger-line`, NOTHING);
  const [tried, setTried] = useState(false);
  const [correcting, setCorrecting] = useState(false);
  const [mapping, setMapping] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const insideId = inside?.id;
  const id = useId();
  useEffect(() => {
    if (focus || insideId !== undefined) input.current?.focus();
  }, [focus, insideId]);
  const read = readLedgerLine(typed.text);
  const line = read && merged(read, typed.fixed);
  const photo = state.live.filter(isKind('photo')).at(-1);
  const { spots = [] } = typed;
  const misfit = spots.length > 0 && spots.length !== line?.count;
  const last = state.ledger.at(-1);
  const add = (event: FormEvent): void => {
    event.preventDefault();
    setTried(true);
    if (!line || misfit) return;
    const shown = photo && spots.length > 0 ? { photo: photo.id, spots } : {};
    keep({ kind: 'came-off', payload: { ...line, ...shown, ...(inside ? { inside: inside.id } : {}) } });
    setMapping(false);
    setTyped(undefined);
    setTried(false);
    setCorrecting(false);
    input.current?.focus();
  };
  const again = (): void => {
    if (last) keep({ kind: 'came-off', payload: oneMore(last.payload) });
  };
  return (
    <form onSubmit={add} noValidate className="mb-2">
      <FormLabel htmlFor={id}>{inside ? `Out of the ${inside.name}` : 'Came off, but not on the sheet'}</FormLabel>
      <div className="d-flex flex-wrap gap-2">
        <FormControl
          id={id}
          ref={input}
          className={`flex-grow-1 w-auto ${tried && !line ? 'is-invalid' : ''}`}
          placeholder="6 x M8x25 top cover, tray 3"
          maxLength={200}
          autoComplete="off"
          aria-describedby={`${id}-read`}
          value={typed.text}
          onChange={(event) => setTyped({ ...typed, text: event.target.value })}
        />
        <Button type="submit" variant="plain">
          Add
        </Button>
        {last ? (
          <Button variant="plain" onClick={again}>
            Same again: {last.payload.name}, +1
          </Button>
        ) : null}
        {photo ? (
          <Button variant="plain" aria-expanded={mapping} onClick={() => setMapping(!mapping)}>
            On the photo
          </Button>
        ) : null}
        {onLeave ? (
          <Button variant="plain" onClick={onLeave}>
            {inside ? 'That is all of it' : 'Close'}
          </Button>
        ) : null}
      </div>
      <div id={`${id}-read`} className={tried && !line ? 'v-out' : 'soft'} aria-live="polite">
        {line && typed.text ? (
          <>
            {[`${line.count} ×`, ...FIELDS.flatMap(([field, label]) => words(field, label, line))].join(', ').replace('×, ', '× ')}{' '}
            <Button variant="quiet" className="p-0" aria-expanded={correcting} onClick={() => setCorrecting(!correcting)}>
              Put it right
            </Button>
          </>
        ) : tried ? (
          'Say how many (1 to 1000) and what'
        ) : (
          ''
        )}
      </div>
      {misfit ? (
        <p className="v-out mb-0" aria-live="polite">
          {spots.length} {spots.length === 1 ? 'dot is' : 'dots are'} on the photo, {line?.count ?? '…'} counted. Put as many, or none.
        </p>
      ) : null}
      {photo && mapping ? <PhotoMap photo={photo} chosen={spots} onChoose={(chosen) => setTyped({ ...typed, spots: chosen })} /> : null}
      {line && correcting ? (
        <div className="row g-2 mt-1">
          {FIELDS.map(([field, label, longest]) => (
            <div key={field} className="col-6 col-md-3">
              <FormLabel htmlFor={`${id}-${field}`}>{label}</FormLabel>
              <FormControl
                id={`${id}-${field}`}
                maxLength={longest}
                autoComplete="off"
                value={typed.fixed[field] ?? line[field] ?? ''}
                onChange={(event) => setTyped({ ...typed, fixed: { ...typed.fixed, [field]: event.target.value } })}
              />
            </div>
          ))}
        </div>
      ) : null}
    </form>
  );
}

function words(field: Field, label: string, line: LedgerLine): readonly string[] {
  const held = line[field];
  if (held === undefined || (field === 'size' && held === line.name)) return [];
  return [field === 'name' ? held : `${label.toLowerCase()} ${held}`];
}

/** What was put right stands; a field that was emptied is gone. */
function merged(read: LedgerLine, fixed: Typed['fixed']): LedgerLine {
  const { name = read.name, ...rest } = fixed;
  const fields = Object.entries({ ...read, ...rest, name: name.trim() === '' ? read.name : name.trim() })
    .map(([field, held]) => [field, typeof held === 'string' ? held.trim() : held] as const)
    .filter(([, held]) => held !== '');
  return Object.fromEntries(fields) as unknown as LedgerLine;
}

/** The same once more: another screw of the kind, from wherever it was. */
function oneMore<
  P extends {
    readonly count: number;
    readonly places?: readonly number[];
    readonly mark?: string;
    readonly photo?: string;
    readonly spots?: readonly Spot[];
  },
>(payload: P): object {
  const { places: _, mark: __, photo: ___, spots: ____, ...rest } = payload;
  return { ...rest, count: 1 };
}
