import { formatQuantity, parseQuantity, unitsOf, type Quantity } from '@jubb/core';
import { CRIB_KINDS, TOOL_READS, isPushing, limitOfError, type CribKind } from '@jubb/sheet';
import { ENDPOINTS, ToolBody, ToolChangeBody, type ToolView } from '@jubb/wire';
import { useEffect, type ReactElement } from 'react';
import { useWatch } from 'react-hook-form';
import { useAskForm } from '../kit/ask-form.ts';
import { Asking } from '../kit/asking.tsx';
import { inDays } from '../kit/days.ts';
import { Field } from '../kit/field.tsx';
import { ask, meanwhile } from '../link/client.ts';
import { refresh } from '../link/queries.ts';

type Typed = Readonly<
  Record<'tag' | 'name' | 'unit' | 'low' | 'high' | 'resolution' | 'within' | 'length' | 'due' | 'everyDays', string>
> & {
  readonly kind: CribKind;
  readonly quantity: Quantity;
  readonly version?: number;
};

/** A year, as most shops have it. */
const YEAR = 365;

/** Base units; what is no figure is none, and nothing is nothing. */
function figure(text: string, quantity: Quantity, unit: string): number {
  if (text.trim() === '') return 0;
  const read = parseQuantity(text, quantity, 'figure', unit);
  return read.ok ? read.quantity.base : Number.NaN;
}

function toBody(
  { tag, name, kind, quantity, unit, low, high, resolution, within, length, due, everyDays, version }: Typed,
  tool: ToolView | undefined,
): ToolBody {
  // What nobody touched stays as exact as it is kept, not as it is shown.
  const known = tool && exactOf(tool);
  const read = (field: Figured, text: string): number => {
    const exact = known?.[field];
    return exact !== undefined && text === formatQuantity(exact, quantity, unit) ? exact : figure(text, quantity, unit);
  };
  return {
    tag: tag.trim(),
    name,
    kind,
    quantity,
    unit,
    low: read('low', low),
    high: read('high', high),
    // What pushes reads nothing.
    resolution: isPushing(kind) ? 0 : resolution.trim() === '' ? Number.NaN : read('resolution', resolution),
    within: isPushing(kind) ? 0 : within.trim() === '' ? Number.NaN : read('within', within),
    ...(length.trim() === '' ? {} : { length: figure(length, 'length', 'mm') }),
    ...(due === '' || isPushing(kind) ? {} : { due }),
    ...(everyDays.trim() === '' || isPushing(kind) ? {} : { everyDays: Number(everyDays) }),
    ...(version === undefined ? {} : { version }),
  };
}

type Figured = 'low' | 'high' | 'resolution' | 'within';

function exactOf(tool: ToolView): Readonly<Record<Figured, number>> {
  const { low, high, resolution } = tool;
  return { low, high, resolution, within: limitOfError(tool) };
}

const FRESH: Typed = {
  tag: '',
  name: '',
  kind: 'torque-wrench',
  quantity: 'torque',
  unit: 'N·m',
  low: '',
  high: '',
  resolution: '',
  within: '',
  length: '',
  due: '',
  everyDays: String(YEAR),
};

function typedOf(tool: ToolView): Typed {
  const { tag, name, quantity, unit, low, high, resolution, length, calibrationDue, everyDays, version } = tool;
  const words = (of: number): string => formatQuantity(of, quantity, unit);
  const hasRange = high > low;
  return {
    tag,
    name,
    kind: tool.kind as CribKind,
    quantity,
    unit,
    low: hasRange ? words(low) : '',
    high: hasRange ? words(high) : '',
    resolution: words(resolution),
    within: words(limitOfError(tool)),
    length: length === null ? '' : formatQuantity(length, 'length'),
    due: calibrationDue ?? '',
    everyDays: everyDays === null ? '' : String(everyDays),
    version,
  };
}

interface ToolFormProps {
  readonly tool?: ToolView;
  /** What is lacking, where that is why a new one is put in. */
  readonly kind?: CribKind;
  readonly onDone: (kept: ToolView) => void;
}

/** A tool as it lies in the crib: what it is, what it reads, and how far it can be trusted. */
export function ToolForm({ tool, kind: asked, onDone }: ToolFormProps): ReactElement {
  const form = useAskForm<Typed, ToolBody>({
    type: tool ? ToolChangeBody : ToolBody,
    ...(tool ? {} : { draft: asked ? `tool.new.${asked}` : 'tool.new' }),
    initial: tool ? typedOf(tool) : { ...FRESH, ...(asked ? { kind: asked } : {}), due: inDays(YEAR) },
    toBody: (typed) => toBody(typed, tool),
    onSend: async (body) => {
      const version = current?.version ?? tool?.version ?? 0;
      const kept = tool
        ? await ask(ENDPOINTS.tools.change, { id: tool.id, body: { ...body, version } })
        : await ask(ENDPOINTS.tools.add, { body });
      await refresh({ queryKey: ['stores', 'tool'] });
      await refresh({ queryKey: ['tools'] });
      onDone(kept);
    },
  });
  const current = meanwhile<ToolView>(form.error);
  const { control, setValue } = form.form;
  const kind = useWatch({ control, name: 'kind' });
  const quantity = useWatch({ control, name: 'quantity' });
  const unit = useWatch({ control, name: 'unit' });
  const reads = TOOL_READS[kind];
  // Another kind reads something else, in its own unit.
  useEffect(() => {
    if (!reads.includes(quantity)) setValue('quantity', reads[0]);
  }, [reads, quantity, setValue]);
  const units = unitsOf(quantity).map(({ symbol }) => symbol);
  useEffect(() => {
    if (!units.includes(unit)) setValue('unit', units[0] ?? '');
  }, [units, unit, setValue]);
  const figures = { className: 'fig', inputMode: 'decimal', maxLength: 20, of: 'tool' } as const;
  const pushes = isPushing(kind);
  const isLong = pushes || kind === 'torque-wrench' || kind === 'beam-wrench' || kind === 'crowfoot';
  return (
    <Asking of={form} act={tool ? 'Keep it' : 'Put it in the crib'}>
      <Field of="tool" name="kind" label="Kind" options={CRIB_KINDS.map((one) => [one, one.replaceAll('-', ' ')] as const)} />
      <Field of="tool" name="tag" label="Tag" maxLength={12} hint="As it is painted on it: W3, M12." />
      <Field of="tool" name="name" label="What it is" maxLength={80} placeholder={pushes ? 'Seal driver 72' : 'Click wrench 20–200'} />
      {reads.length > 1 ? <Field of="tool" name="quantity" label="Reads a" options={reads.map((one) => [one, one] as const)} /> : null}
      <Field of="tool" name="unit" label={pushes ? 'Sizes in' : 'Shows it in'} options={units.map((one) => [one, one] as const)} />
      <div className="d-flex flex-wrap gap-3">
        <Field
          {...figures}
          name="low"
          label={pushes ? 'Inside' : 'From'}
          unit={unit}
          hint={pushes ? 'Nothing of a disc.' : 'Nothing where it has no range.'}
        />
        <Field {...figures} name="high" label={pushes ? 'Outside' : 'To'} unit={unit} />
        {pushes ? null : (
          <>
            <Field {...figures} name="resolution" label="Smallest step it shows" unit={unit} />
            <Field
              {...figures}
              name="within"
              label="Never further off than"
              unit={unit}
              hint="By its certificate, or its maker: 4 % of 100 N·m is 4. What readings are judged by follows from it."
            />
          </>
        )}
      </div>
      {isLong ? (
        <Field
          {...figures}
          name="length"
          label={pushes ? 'It reaches' : kind === 'crowfoot' ? 'Drive centre to jaw' : 'Drive centre to grip'}
          unit="mm"
          hint={pushes ? 'From its end to where it is struck or pressed.' : 'Asked for where an adapter changes the torque.'}
        />
      ) : null}
      <div className={pushes ? 'd-none' : 'd-flex flex-wrap gap-3'}>
        <Field of="tool" name="due" label="Next check due" type="date" hint="Nothing where it needs none." />
        <Field {...figures} name="everyDays" label="Checked every, days" inputMode="numeric" />
      </div>
      {current ? (
        <p>
          Somebody changed it: it is now {current.tag}, {current.name}. Keep it to put yours in its place.
        </p>
      ) : null}
    </Asking>
  );
}
