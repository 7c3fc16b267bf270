import { ENDPOINTS, type ShopBody, type ShopRule, type ShopView } from '@jubb/wire';
import { useState, type FormEvent, type ReactElement } from 'react';
import { Refusal, ask, meanwhile } from '../link/client.ts';
import { refresh, useSession } from '../link/queries.ts';
import { amountText, minorOf, percentText } from '../kit/money.ts';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';
import { useDraft } from '../kit/prefs.ts';
import { useSend } from '../kit/use-send.ts';

/** What the shop asks for its work, and what it renews by its own rule. */
export function ShopPage(): ReactElement {
  const { data: session } = useSession();
  if (!session) return <Loading what="the shop" />;
  const mayChange = session.person.role === 'foreman';
  return (
    <>
      <Title sub={mayChange ? 'Holds for every quote and every proposal from now on.' : 'The foreman changes this.'}>
        {session.shop.name}
      </Title>
      <ShopForm shop={session.shop} mayChange={mayChange} />
    </>
  );
}

interface Typed {
  readonly hourly: string;
  readonly tax: string;
  readonly margin: string;
  readonly rules: readonly ShopRule[];
  readonly pinDigits?: 4 | 6;
  /** Of the shop, when this was begun. */
  readonly version?: number;
}

function shareIn(text: string): number {
  const typed = text.trim().replace(',', '.').replace(/\s*%$/u, '');
  return typed === '' ? Number.NaN : Number(typed) / 100;
}

function ShopForm({ shop, mayChange }: { readonly shop: ShopView; readonly mayChange: boolean }): ReactElement {
  const [typed, setTyped] = useDraft<Typed>('shop', {
    hourly: amountText(shop.hourlyMinor),
    tax: percentText(shop.taxShare),
    margin: percentText(shop.marginShare),
    rules: shop.rules,
    pinDigits: shop.pinDigits,
    version: shop.version,
  });
  const [wrongHour, setWrongHour] = useState(false);
  const [kept, setKept] = useState(false);
  const { busy, error, send } = useSend();
  const problems = error instanceof Refusal ? error.fields : [];
  const current = meanwhile<ShopView>(error);
  const set = (change: Partial<Typed>): void => {
    setKept(false);
    setTyped({ ...typed, ...change });
  };
  const setRule = (place: number, change: Partial<ShopRule>): void =>
    set({ rules: typed.rules.map((rule, index) => (index === place ? { ...rule, ...change } : rule)) });
  const keep = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    const hourlyMinor = minorOf(typed.hourly);
    setWrongHour(hourlyMinor === undefined);
    if (hourlyMinor === undefined) return;
    const body: ShopBody = {
      version: current?.version ?? typed.version ?? shop.version,
      hourlyMinor,
      taxShare: shareIn(typed.tax),
      marginShare: shareIn(typed.margin),
      rules: [...typed.rules],
      pinDigits: typed.pinDigits ?? shop.pinDigits,
    };
    if (!(await send(() => ask(ENDPOINTS.shop.change, { body })))) return;
    setTyped(undefined);
    await refresh({ queryKey: ['session'] });
    setKept(true);
  };
  const figure = (name: 'hourly' | 'tax' | 'margin', label: string, unit: string, wrong: string | undefined): ReactElement => (
    <div className="mb-2">
      <label className="form-label" htmlFor={`shop-${name}`}>
        {label}
      </label>
      <div className="d-flex align-items-baseline gap-2">
        <input
          id={`shop-${name}`}
          className={`form-control fig fs-4 ${wrong ? 'is-invalid' : ''}`}
          style={{ maxWidth: 160 }}
          inputMode="decimal"
          maxLength={12}
          disabled={!mayChange}
          aria-invalid={wrong !== undefined}
          value={typed[name]}
          onChange={(event) => set({ [name]: event.target.value })}
        />
        <span className="fig fs-5">{unit}</span>
      </div>
      {wrong ? <div className="v-out">{wrong}</div> : null}
    </div>
  );
  const wordsFor = (field: string): string | undefined => problems.find((one) => one.field === field)?.allowed;
  return (
    <form noValidate onSubmit={(event) => void keep(event)}>
      <div className="two form-first">
        <div className="work">
          {figure(
            'hourly',
            'An hour of labour',
            shop.currency,
            wrongHour ? 'An amount with at most two decimals, such as 68.00' : wordsFor('hourlyMinor'),
          )}
          {figure('tax', 'Tax', '%', wordsFor('taxShare'))}
          {figure('margin', 'Parts are sold at what they cost and', '% more', wordsFor('marginShare'))}
          <div className="mb-2">
            <label className="form-label" htmlFor="shop-pin">
              A PIN at the bench has at least
            </label>
            <select
              id="shop-pin"
              className="form-select"
              style={{ maxWidth: 200 }}
              disabled={!mayChange}
              value={typed.pinDigits ?? shop.pinDigits}
              onChange={(event) => set({ pinDigits: event.target.value === '6' ? 6 : 4 })}
            >
              <option value="4">four digits</option>
              <option value="6">six digits</option>
            </select>
          </div>
        </div>
        <div>
          <h2>Renewed by the shop’s own rule</h2>
          <p className="soft">
            A part with these words in its name is proposed for renewal, whatever it looks like. Who decides otherwise says why.
          </p>
          {typed.rules.length === 0 ? <p className="soft">No rule: the sheet, the readings and the looks decide.</p> : null}
          {typed.rules.map((rule, place) => (
            <div key={place} className="d-flex flex-wrap gap-2 mb-2 align-items-end">
              {(['words', 'why'] as const).map((name) => {
                const wrong = wordsFor(`rules[${place}].${name}`);
                return (
                  <div key={name} className={name === 'why' ? 'flex-grow-1' : ''}>
                    <label className="form-label" htmlFor={`rule-${place}-${name}`}>
                      {name === 'words' ? 'Parts called' : 'Because'}
                    </label>
                    <input
                      id={`rule-${place}-${name}`}
                      className={`form-control ${wrong ? 'is-invalid' : ''}`}
                      maxLength={name === 'words' ? 60 : 200}
                      disabled={!mayChange}
                      value={rule[name]}
                      onChange={(event) => setRule(place, { [name]: event.target.value })}
                    />
                    {wrong ? <div className="v-out">{wrong}</div> : null}
                  </div>
                );
              })}
              {mayChange ? (
                <button
                  type="button"
                  className="btn btn-quiet"
                  onClick={() => set({ rules: typed.rules.filter((_, index) => index !== place) })}
                >
                  Out<span className="visually-hidden"> rule {place + 1}</span>
                </button>
              ) : null}
            </div>
          ))}
          {mayChange ? (
            <button type="button" className="btn btn-plain" onClick={() => set({ rules: [...typed.rules, { words: '', why: '' }] })}>
              One more rule
            </button>
          ) : null}
        </div>
      </div>
      {current ? (
        <p>
          It now says: an hour {amountText(current.hourlyMinor)}, tax {percentText(current.taxShare)} %, parts{' '}
          {percentText(current.marginShare)} % more;{' '}
          {current.rules.length === 0 ? 'no rule' : current.rules.map(({ words, why }) => `${words}: ${why}`).join('; ')}. What you typed is
          still here; keep it to put it in its place.
        </p>
      ) : null}
      <Wrong error={error} hide={problems.map(({ field }) => field)} />
      {mayChange ? (
        <p className="mt-3">
          <button type="submit" className="btn btn-primary" disabled={busy}>
            Keep it
          </button>{' '}
          <span className="v-in" role="status">
            {kept ? 'Kept.' : ''}
          </span>
        </p>
      ) : null}
    </form>
  );
}
