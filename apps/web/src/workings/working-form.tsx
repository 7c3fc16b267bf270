import {
  baseUnit,
  formatQuantity,
  quantityOf,
  wording,
  type Field,
  type Issue,
  type Quantity,
  type WorkingDescription,
  type WorkingRun,
} from '@jubb/core';
import { useMemo, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import FormLabel from 'react-bootstrap/FormLabel';
import FormSelect from 'react-bootstrap/FormSelect';
import FormControl from 'react-bootstrap/FormControl';
import Table from 'react-bootstrap/Table';
import { lineText } from '../kit/figure-field.tsx';
import { useLines } from '../link/use-lines.ts';
import { Drawn } from '../drawings/drawn.tsx';
import { Care, Title } from '../kit/pieces.tsx';
import { useDraft } from '../kit/prefs.ts';
import { RingAnswer } from './ring-answer.tsx';
import { useRun } from './use-run.ts';
import { Way } from './way.tsx';
import type { AnswerProps } from './answer-props.ts';
import { rememberWorking } from './used.ts';
import './workings.scss';

/** Workings whose answer is looked at otherwise than in lines. */
const ANSWERS: Readonly<Record<string, (props: AnswerProps) => ReactElement>> = { 'oring.pick': RingAnswer };

type Texts = Readonly<Record<string, string>>;

interface WorkingFormProps {
  readonly working: WorkingDescription;
  /** Under which name what is typed is remembered. */
  readonly draftKey?: string;
  /** What stands under the answer. */
  readonly under?: (run: WorkingRun) => ReactElement | null;
  /** What a job knows already; then nothing of the example is filled in. */
  readonly preset?: Readonly<Record<string, unknown>>;
  /** What is at hand for a table that is left empty: rows, of the stores. */
  readonly known?: Readonly<Record<string, readonly unknown[]>>;
  /** Stands within a page that has its own heading. */
  readonly isPart?: boolean;
}

/** A working's form and answer, made from its description alone. */
export function WorkingForm({
  working,
  draftKey = `working.${working.id}`,
  under,
  preset,
  known,
  isPart = false,
}: WorkingFormProps): ReactElement {
  const initial = useMemo(
    () =>
      Object.fromEntries(
        working.inputs.map((field) => [
          field.name,
          asText(field, preset?.[field.name] ?? ('default' in field ? field.default : undefined)),
        ]),
      ),
    [working, preset],
  );
  const [texts, setTexts] = useDraft<Texts>(draftKey, initial);
  // The example stands there in grey, and is nobody's reading: it is gone with the first letter.
  const isExample = preset === undefined && working.inputs.every(({ name }) => (texts[name] ?? '') === (initial[name] ?? ''));
  const typed = Object.fromEntries(
    working.inputs.flatMap((field) => (texts[field.name]?.trim() ? [[field.name, fromText(field, texts[field.name] ?? '')]] : [])),
  );
  const input = { ...known, ...typed };
  const result = useRun(working, isExample ? { ...working.example, ...known } : input);
  const found = result && !result.ok ? result.issues : [];
  // What is empty is no mistake: it is still to come.
  const issues = found.filter(({ code }) => code !== 'required');
  const run = result?.ok ? result.run : undefined;
  const Said = ANSWERS[working.id] ?? Answer;
  const shown = isExample ? { ...initial, ...working.example } : texts;
  const isAsked = ({ onlyFor }: Field): boolean => !onlyFor || onlyFor.choices.includes(String(shown[onlyFor.field] ?? ''));
  const lacking = working.inputs.filter(({ name }) => found.some(({ code, field }) => code === 'required' && field === name));
  const set = (name: string, text: string): void => {
    if (preset === undefined) rememberWorking(working.id);
    setTexts({ ...texts, [name]: text });
  };
  useLines(true, (line) => {
    const name = document.activeElement?.id.replace(/^in-/u, '');
    const field = working.inputs.find((one) => one.name === name);
    if (
      !field ||
      line.marked !== undefined ||
      !('quantity' in field) ||
      quantityOf(field.quantity, input, working.inputs) !== line.quantity
    )
      return;
    const before = (texts[field.name] ?? '').trim();
    // A list takes reading after reading; a single figure gives way, and the next field has its turn.
    set(field.name, field.kind === 'list' && before !== '' ? `${before}; ${lineText(line)}` : lineText(line));
    if (field.kind !== 'list') focusNext(working.inputs.filter(isAsked), field);
  });
  return (
    <>
      {isPart ? <h2>{working.title}</h2> : <Title>{working.title}</Title>}
      {working.cautions.map((caution) => (
        <Care key={caution}>{caution}</Care>
      ))}
      <div className="two form-first">
        <form className="work" onSubmit={(event) => event.preventDefault()}>
          {working.inputs.filter(isAsked).map((field) => (
            <InputField
              key={field.name}
              field={field}
              text={texts[field.name] ?? ''}
              input={input}
              fields={working.inputs}
              issues={issues}
              example={isExample ? asText(field, working.example[field.name]) : ''}
              known={known?.[field.name]?.length}
              onText={(text) => set(field.name, text)}
            />
          ))}
          <Button variant="plain" onClick={() => setTexts(undefined)}>
            Begin again
          </Button>
        </form>
        <div className="answer-side" aria-live="polite">
          {run ? (
            <>
              <Said working={working} run={run} isExample={isExample} />
              {isExample ? null : under?.(run)}
            </>
          ) : (
            <p className="answer-main soft">
              {lacking.length > 0
                ? `Still to come: ${lacking.map(({ label }) => label).join(', ')}.`
                : 'No answer yet: see what is said at the fields.'}
            </p>
          )}
          <h2 className="mt-4">Rests on</h2>
          <ul>
            {working.sources.map((source) => (
              <li key={source.document + source.for}>
                <span className="trust">{source.kind}</span> {[source.document, source.edition, source.clause].filter(Boolean).join(', ')}:{' '}
                {source.for}
                {source.fromMemory ? ' (from memory)' : ''}
              </li>
            ))}
          </ul>
        </div>
      </div>
    </>
  );
}

function focusNext(fields: readonly Field[], after: Field): void {
  const next = fields[fields.indexOf(after) + 1];
  if (next) document.getElementById(`in-${next.name}`)?.focus();
}

interface InputFieldProps {
  readonly field: Field;
  readonly text: string;
  readonly input: Readonly<Record<string, unknown>>;
  readonly fields: readonly Field[];
  readonly issues: readonly Issue[];
  /** What the example has, in grey. */
  readonly example: string;
  /** So many rows are taken from the stores where nothing is typed. */
  readonly known?: number | undefined;
  readonly onText: (text: string) => void;
}

function InputField({ field, text, input, fields, issues, example, known, onText }: InputFieldProps): ReactElement {
  const issue = issues.find((candidate) => candidate.field === field.name || candidate.field.startsWith(`${field.name}[`));
  const id = `in-${field.name}`;
  const isShare = field.kind === 'number' && field.share;
  const unit = isShare ? '%' : 'quantity' in field ? baseUnit(quantityOf(field.quantity, input, fields)).symbol : '';
  // Where the example has something, its default is not the example's.
  const control = { id, value: example === '' ? text : '', 'aria-invalid': issue !== undefined, 'aria-describedby': `${id}-help` };
  return (
    <div className="mb-3">
      <FormLabel htmlFor={id}>
        {field.label} {field.symbol ? <span className="soft fw-normal">{field.symbol}</span> : null}{' '}
        {field.optional ? <span className="soft fw-normal">may stay empty</span> : null}
      </FormLabel>
      {field.kind === 'choice' ? (
        <FormSelect {...control} onChange={(event) => onText(event.target.value)}>
          {'default' in field && field.default !== undefined ? null : (
            <option value="">
              {example === ''
                ? field.optional
                  ? 'not said'
                  : 'choose'
                : `such as: ${field.choices.find(({ id: one }) => one === example)?.label}`}
            </option>
          )}
          {field.choices.map((choice) => (
            <option key={choice.id} value={choice.id}>
              {choice.label}
            </option>
          ))}
        </FormSelect>
      ) : field.kind === 'table' ? (
        <FormControl
          as="textarea"
          className={`fig ${issue ? 'is-invalid' : ''}`}
          rows={known ? 2 : 4}
          {...control}
          placeholder={
            known ? `${known} of the stores are looked through` : example || field.columns.map((column) => column.label).join(' ')
          }
          onChange={(event) => onText(event.target.value)}
        />
      ) : (
        <div className="d-flex align-items-baseline gap-2">
          <FormControl
            className={`fig fs-4 ${issue ? 'is-invalid' : ''}`}
            autoComplete="off"
            spellCheck={false}
            placeholder={example}
            {...control}
            onChange={(event) => onText(event.target.value)}
          />
          <span className="fig fs-5">{unit}</span>
        </div>
      )}
      <div id={`${id}-help`}>
        {issue ? <div className="v-out">{wording(issue)}</div> : null}
        <div className="soft">{field.help}</div>
      </div>
    </div>
  );
}

function Answer({ working, run, isExample }: AnswerProps): ReactElement {
  const [main, ...rest] = working.outputs.filter((field) => run.output[field.name] !== undefined);
  const write = (field: Field): string => figureText(field, run.output[field.name], run.input, working.inputs);
  const tables = rest.filter((field) => field.kind === 'table');
  return (
    <>
      {main ? (
        <p className={`answer-main ${isExample ? 'answer-example' : ''}`}>
          <span className="soft">
            {isExample ? 'Example: ' : ''}
            {main.label}
          </span>
          <br />
          <span className={main.kind === 'number' || main.kind === 'choice' ? 'number' : 'fig fs-2'}>{write(main)}</span>
        </p>
      ) : null}
      <dl className="facts mb-3">
        {rest
          .filter((field) => field.kind !== 'table')
          .map((field) => (
            <div key={field.name} style={{ display: 'contents' }}>
              <dt>{field.label}</dt>
              <dd className={field.kind === 'text' ? '' : 'fig fs-5'}>{write(field)}</dd>
            </div>
          ))}
      </dl>
      {run.drawing ? <Drawn drawing={run.drawing} name={working.title} /> : null}
      <Way steps={run.steps} />
      {tables.map((field) => (
        <AnswerTable key={field.name} field={field} rows={run.output[field.name] as readonly Readonly<Record<string, unknown>>[]} />
      ))}
    </>
  );
}

function AnswerTable({
  field,
  rows,
}: {
  readonly field: Extract<Field, { kind: 'table' }>;
  readonly rows: readonly Readonly<Record<string, unknown>>[];
}): ReactElement {
  return (
    <>
      <h2 className="mt-3">{field.label}</h2>
      <div className="table-wide" role="region" aria-label={field.label} tabIndex={0}>
        <Table>
          <thead>
            <tr>
              {field.columns.map((column) => (
                <th key={column.name} scope="col">
                  {column.label}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row, index) => (
              <tr key={index}>
                {field.columns.map((column) => {
                  const cell = row[column.name];
                  const isPlain = column.quantity === 'text' || column.quantity === 'yes-no';
                  return (
                    <td key={column.name} className="fig">
                      {cell === undefined
                        ? '–'
                        : isPlain
                          ? typeof cell === 'boolean'
                            ? cell
                              ? 'yes'
                              : 'no'
                            : String(cell)
                          : formatQuantity(Number(cell), column.quantity as Quantity, column.share ? '%' : undefined)}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </Table>
      </div>
    </>
  );
}

function figureText(field: Field, figure: unknown, input: Readonly<Record<string, unknown>>, fields: readonly Field[]): string {
  switch (field.kind) {
    case 'number': {
      const quantity = quantityOf(field.quantity, input, fields);
      // Parts of a hundredth of a millimetre are read in micrometres, and of a tenth of a litre in millilitres.
      const isFine = quantity === 'length' && Math.abs(Number(figure)) < 0.01 && Number(figure) !== 0;
      const isDrop = quantity === 'volume' && Math.abs(Number(figure)) < 0.1;
      return formatQuantity(Number(figure), quantity, field.share ? '%' : isFine ? 'µm' : isDrop ? 'mL' : undefined);
    }
    case 'list':
      return (figure as readonly number[]).map((item) => formatQuantity(item, quantityOf(field.quantity, input, fields))).join(' – ');
    case 'choice':
      return field.choices.find((choice) => choice.id === figure)?.label ?? String(figure);
    default:
      return String(figure);
  }
}

function asText(field: Field, example: unknown): string {
  if (example === undefined) return '';
  if (field.kind === 'list') return (example as readonly unknown[]).join('; ');
  if (field.kind === 'table')
    return (example as readonly Readonly<Record<string, unknown>>[])
      .map((row) => {
        const cells = field.columns.map((column) => String(row[column.name]));
        return cells.join(cells.some((cell) => cell.includes(' ')) ? '; ' : ' ');
      })
      .join('\n');
  // Read back as it is written; its sign stands beside the field.
  if (field.kind === 'number' && field.share && typeof example === 'number') return formatQuantity(example, 'ratio', '%').replace(' %', '');
  return String(example);
}

function fromText(field: Field, text: string): unknown {
  // A list goes as it was typed: the unit of one of its figures is the unit of all.
  if (field.kind !== 'table') return text.trim();
  return text
    .split('\n')
    .filter((line) => line.trim() !== '')
    .map((line) =>
      Object.fromEntries(
        line
          .trim()
          // Words of more than one are parted by semicolons; figures need none.
          .split(line.includes(';') ? /\s*;\s*/u : /\s+/u)
          .map((cell, index) => [field.columns[index]?.name ?? `column ${index + 1}`, cell]),
      ),
    );
}
