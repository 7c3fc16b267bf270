import type { StockLine } from '@jubb/book';
import { MATERIAL_IDS, type Material } from '@jubb/core';
import { STOCK_KINDS, STOCK_UNITS, type StockKind, type StockUnit } from '@jubb/sheet';
import { ENDPOINTS, StockChangeBody, StockItemBody, type StockView } from '@jubb/wire';
import type { ReactElement } from 'react';
import { useWatch } from 'react-hook-form';
import { ask, meanwhile } from '../link/client.ts';
import { useAskForm } from '../kit/ask-form.ts';
import { Asking } from '../kit/asking.tsx';
import { Field } from '../kit/field.tsx';
import { amountText, minorOf } from '../kit/money.ts';
import { offerUndo } from '../kit/undo.ts';
import { refreshStores } from './queries.ts';

type Typed = Readonly<Record<'number' | 'name' | 'size' | 'designation' | 'location' | 'minimum' | 'price' | 'shore', string>> & {
  readonly material: Material | '';
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

/** The request, from what was typed; a price that is none is no number. */
function toBody({ price, minimum, material, shore, ...rest }: Typed): StockItemBody {
  const rubber = isSeal(rest.kind) && material !== '' ? { material, ...(shore.trim() ? { shore: Number(shore) } : {}) } : {};
  return { ...rest, ...rubber, minimum: Number(minimum.replace(',', '.')), priceMinor: minorOf(price === '' ? '0' : price) ?? Number.NaN };
}

const isSeal = (kind: StockKind): boolean => kind === 'seal' || kind === 'o-ring';

/** A line as it was. */
function bodyOf({ number, name, kind, unit, size, designation, location, minimum, priceMinor, material, shore }: StockLine): StockItemBody {
  const rubber = { ...(material === null ? {} : { material: material as Material }), ...(shore === null ? {} : { shore }) };
  return { ...rubber, number, name, kind, unit, location, minimum, priceMinor, size: size ?? '', designation: designation ?? '' };
}

export function StockForm({ line, onDone }: { readonly line?: StockLine; readonly onDone: (kept: StockView) => void }): ReactElement {
  const form = useAskForm<Typed, StockItemBody>({
    type: line ? StockChangeBody : StockItemBody,
    draft: `stock.${line?.id ?? 'new'}`,
    initial: {
      number: line?.number ?? '',
      name: line?.name ?? '',
      size: line?.size ?? '',
      designation: line?.designation ?? '',
      location: line?.location ?? '',
      minimum: String(line?.minimum ?? 0),
      price: line ? amountText(line.priceMinor) : '',
      material: (line?.material ?? '') as Material | '',
      shore: String(line?.shore ?? ''),
      kind: line?.kind ?? 'part',
      unit: line?.unit ?? 'piece',
      ...(line ? { version: line.version } : {}),
    },
    toBody,
    names: { priceMinor: 'price' },
    onSend: async (body, typed) => {
      const kept = line
        ? await ask(ENDPOINTS.stock.change, { id: line.id, body: { ...body, version: current?.version ?? typed.version ?? line.version } })
        : await ask(ENDPOINTS.stock.add, { body });
      await refreshStores();
      if (line)
        offerUndo(`${line.number} is changed`, async () => {
          await ask(ENDPOINTS.stock.change, { id: line.id, body: { ...bodyOf(line), version: kept.version } });
          await refreshStores();
        });
      onDone(kept);
    },
  });
  const current = meanwhile<StockView>(form.error);
  const kind = useWatch({ control: form.form.control, name: 'kind' });
  return (
    <Asking of={form} act="Keep it">
      <div className="row">
        {FIELDS.map(([name, label, longest]) => (
          <Field key={name} of="stock" name={name} label={label} maxLength={longest} wrap="col-6 mb-2" />
        ))}
        <Field of="stock" name="kind" label="Kind" wrap="col-6 mb-2" options={STOCK_KINDS.map((kind) => [kind, kind])} />
        <Field of="stock" name="unit" label="Counted in" wrap="col-6 mb-2" options={STOCK_UNITS.map((unit) => [unit, unit])} />
        {isSeal(kind) ? (
          <>
            <Field
              of="stock"
              name="material"
              label="Made of"
              wrap="col-6 mb-2"
              hint="With the day it was cured it says how long it lies well."
              options={[['', 'not known'], ...MATERIAL_IDS.map((id) => [id, id] as const)]}
            />
            <Field of="stock" name="shore" label="Hardness, Shore A" wrap="col-6 mb-2" className="fig" inputMode="numeric" maxLength={3} />
          </>
        ) : null}
      </div>
      {current ? (
        <p>
          It now says: {[current.number, current.name, current.size, current.designation].filter(Boolean).join(', ')}; shelf{' '}
          {current.location || 'none'}, at least {current.minimum}, sold at {amountText(current.priceMinor)}. What you typed is still here;
          keep it to put it in its place.
        </p>
      ) : null}
    </Asking>
  );
}
