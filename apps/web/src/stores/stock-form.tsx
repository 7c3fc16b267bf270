import type { StockLine } from '@jubb/book';
import { STOCK_KINDS, STOCK_UNITS, type StockKind, type StockUnit } from '@jubb/sheet';
import { ENDPOINTS, type StockChangeBody, type StockItemBody, type StockView } from '@jubb/wire';
import { useState, type FormEvent, type ReactElement } from 'react';
import { Refusal, ask, meanwhile } from '../link/client.ts';
import { amountText, minorOf } from '../kit/money.ts';
import { Wrong } from '../kit/pieces.tsx';
import { useDraft } from '../kit/prefs.ts';
import { useSend } from '../kit/use-send.ts';
import { refreshStores } from './queries.ts';

type Typed = Readonly<Record<'number' | 'name' | 'size' | 'designation' | 'location' | 'minimum' | 'price', string>> & {
  readonly kind: StockKind;
  readonly unit: StockUnit;
  /** Of the line, when this was begun. */
  readonly version?: number;
};

const FIELDS = [
  ['number', 'Number', 60],
  ['name', 'What it is', 200],
  ['size', 'Size', 60],
  ['designation', 'Designation', 80],
  ['location', 'Shelf', 60],
  ['minimum', 'At least so many', 12],
  ['price', 'Sold at', 12],
] as const;
const FIELD_OF: Readonly<Record<string, string>> = { price: 'priceMinor' };

export function StockForm({ line, onDone }: { readonly line?: StockLine; readonly onDone: (kept: StockView) => void }): ReactElement {
  const [typed, setTyped] = useDraft<Typed>(`stock.${line?.id ?? 'new'}`, {
    number: line?.number ?? '',
    name: line?.name ?? '',
    size: line?.size ?? '',
    designation: line?.designation ?? '',
    location: line?.location ?? '',
    minimum: String(line?.minimum ?? 0),
    price: line ? amountText(line.priceMinor) : '',
    kind: line?.kind ?? 'part',
    unit: line?.unit ?? 'piece',
    ...(line ? { version: line.version } : {}),
  });
  const [wrongPrice, setWrongPrice] = useState(false);
  const { busy, error, send } = useSend();
  const current = meanwhile<StockView>(error);
  const keep = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    const priceMinor = minorOf(typed.price === '' ? '0' : typed.price);
    setWrongPrice(priceMinor === undefined);
    if (priceMinor === undefined) return;
    const { price: _price, minimum, version: begun, ...rest } = typed;
    const body: StockItemBody = { ...rest, minimum: Number(minimum.replace(',', '.')), priceMinor };
    let kept: StockView | undefined;
    const ok = await send(async () => {
      if (!line) kept = await ask(ENDPOINTS.stock.add, { body });
      else {
        const change: StockChangeBody = { ...body, version: current?.version ?? begun ?? line.version };
        kept = await ask(ENDPOINTS.stock.change, { id: line.id, body: change });
      }
    });
    if (!ok || !kept) return;
    setTyped(undefined);
    await refreshStores();
    onDone(kept);
  };
  const problems = error instanceof Refusal ? error.fields : [];
  return (
    <form noValidate onSubmit={(event) => void keep(event)}>
      <div className="row">
        {FIELDS.map(([name, label, longest]) => {
          const problem = problems.find(({ field }) => field === (FIELD_OF[name] ?? name));
          const words = name === 'price' && wrongPrice ? 'An amount with at most two decimals, such as 12.50' : problem?.allowed;
          return (
            <div key={name} className="col-6 mb-2">
              <label className="form-label" htmlFor={`stock-${name}`}>
                {label}
              </label>
              <input
                id={`stock-${name}`}
                className={`form-control ${words ? 'is-invalid' : ''}`}
                maxLength={longest}
                autoComplete="off"
                aria-invalid={words !== undefined}
                value={typed[name]}
                onChange={(event) => setTyped({ ...typed, [name]: event.target.value })}
              />
              {words ? <div className="v-out">{words}</div> : null}
            </div>
          );
        })}
        <div className="col-6 mb-2">
          <label className="form-label" htmlFor="stock-kind">
            Kind
          </label>
          <select
            id="stock-kind"
            className="form-select"
            value={typed.kind}
            onChange={(event) => setTyped({ ...typed, kind: event.target.value as StockKind })}
          >
            {STOCK_KINDS.map((kind) => (
              <option key={kind}>{kind}</option>
            ))}
          </select>
        </div>
        <div className="col-6 mb-2">
          <label className="form-label" htmlFor="stock-unit">
            Counted in
          </label>
          <select
            id="stock-unit"
            className="form-select"
            value={typed.unit}
            onChange={(event) => setTyped({ ...typed, unit: event.target.value as StockUnit })}
          >
            {STOCK_UNITS.map((unit) => (
              <option key={unit}>{unit}</option>
            ))}
          </select>
        </div>
      </div>
      {current ? (
        <p>
          It now says: {[current.number, current.name, current.size, current.designation].filter(Boolean).join(', ')}; shelf{' '}
          {current.location || 'none'}, at least {current.minimum}, sold at {amountText(current.priceMinor)}. What you typed is still here;
          keep it to put it in its place.
        </p>
      ) : null}
      <Wrong error={error} hide={[...FIELDS.map(([name]) => name), 'priceMinor']} />
      <button type="submit" className="btn btn-primary" disabled={busy}>
        Keep it
      </button>
    </form>
  );
}
