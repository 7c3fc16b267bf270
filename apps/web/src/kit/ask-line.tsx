import { useId, useLayoutEffect, useRef, useState, type KeyboardEvent, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import FormLabel from 'react-bootstrap/FormLabel';
import FormSelect from 'react-bootstrap/FormSelect';
import FormControl from 'react-bootstrap/FormControl';
import { Dialog } from './dialog.ts';
import { useDraft } from './prefs.ts';

export type Answers = Readonly<Record<string, string>>;

export interface AskedField {
  readonly name: string;
  readonly label: string;
  readonly required?: boolean;
  readonly hint?: string;
  readonly longest?: number;
  readonly type?: 'text' | 'date' | 'number';
  /** What stands in it until something else is typed. */
  readonly initial?: string;
  /** Two of a kind stand side by side. */
  readonly isShort?: boolean;
  /** What is wrong with what stands in it. */
  readonly wrong?: string | undefined;
  /** One of these, rather than words. */
  readonly options?: readonly (readonly [value: string, label: string])[];
}

/** A choice by one key: the number that stands before it. */
export interface AskedChoice {
  readonly name: string;
  readonly label: string;
  readonly options: readonly (readonly [value: string, label: string])[];
  /** Nothing to be chosen is an answer too. */
  readonly optional?: boolean;
}

interface AskLineProps {
  /** What it is asked about: what is half typed of one job never turns up on another. */
  readonly about: string;
  readonly title: string;
  readonly choice?: AskedChoice | undefined;
  readonly fields: (answers: Answers) => readonly AskedField[];
  readonly act: string;
  readonly onDone: (answers: Answers) => void;
  readonly onClose: () => void;
}

/** Asks for a line or two: why it is struck, what is open. Enter keeps it, Escape leaves it, a reload loses nothing. */
export function AskLine({ about, title, choice, fields, act, onDone, onClose }: AskLineProps): ReactElement {
  const [typed, setTyped] = useDraft<Answers>(`${about}.ask.${title}`, {});
  const [tried, setTried] = useState(false);
  const form = useRef<HTMLFormElement>(null);
  const id = useId();
  const asked = fields(typed);
  const answers: Answers = { ...Object.fromEntries(asked.map(({ name, initial = '' }) => [name, initial])), ...typed };
  const toFirst = (what: 'choice' | 'field'): void => {
    const first = form.current?.querySelector<HTMLElement>(what === 'choice' ? '[data-choice]' : 'input, select');
    (first ?? form.current?.querySelector<HTMLElement>('input, select'))?.focus();
  };
  useLayoutEffect(() => toFirst('choice'), []);
  const missing = (name: string): boolean => asked.some((field) => field.name === name && field.required && !answers[name]?.trim());
  const wrongOf = ({ name, wrong }: AskedField): string | undefined => (missing(name) ? 'Say it in a word or two' : wrong);
  const noChoice = choice !== undefined && !choice.optional && !answers[choice.name];
  const keep = (): void => {
    setTried(true);
    if (noChoice || asked.some((field) => wrongOf(field) !== undefined)) return;
    setTyped(undefined);
    onDone(answers);
  };
  const leave = (): void => {
    setTyped(undefined);
    onClose();
  };
  const choose = (value: string): void => {
    if (!choice) return;
    setTyped({ ...typed, [choice.name]: value });
    // The fields may be others now.
    requestAnimationFrame(() => toFirst('field'));
  };
  const byNumber = (event: KeyboardEvent<HTMLFormElement>): void => {
    if (/^(INPUT|SELECT)$/u.test((event.target as HTMLElement).tagName)) return;
    const option = choice?.options[Number(event.key) - 1];
    if (option) {
      event.preventDefault();
      choose(option[0]);
    } else if (/^\p{L}$/u.test(event.key) && !event.ctrlKey && !event.metaKey) {
      // Whoever types at once means the words: the letter lands in their field.
      toFirst('field');
    }
  };
  return (
    <Dialog show centered onHide={leave} animation={false} aria-labelledby={`${id}-title`} restoreFocus>
      <form
        ref={form}
        noValidate
        onKeyDown={byNumber}
        onSubmit={(event) => {
          event.preventDefault();
          keep();
        }}
      >
        <Dialog.Header closeButton>
          <Dialog.Title as="h2" id={`${id}-title`}>
            {title}
          </Dialog.Title>
        </Dialog.Header>
        <Dialog.Body>
          {choice ? (
            <div className="mb-3">
              <div className="way-pick" role="group" aria-label={choice.label}>
                {choice.options.map(([value, label], index) => (
                  <Button
                    key={value}
                    data-choice
                    variant="plain"
                    className={answers[choice.name] === value ? 'on' : ''}
                    aria-pressed={answers[choice.name] === value}
                    onClick={() => choose(value)}
                  >
                    <kbd>{index + 1}</kbd> {label}
                  </Button>
                ))}
              </div>
              {tried && noChoice ? <div className="v-out">Pick one of them</div> : null}
            </div>
          ) : null}
          <div className="row">
            {asked.map((field) => (
              <Asked
                key={field.name}
                id={`${id}-${field.name}`}
                field={field}
                text={answers[field.name] ?? ''}
                wrong={tried ? wrongOf(field) : undefined}
                onText={(text) => setTyped({ ...typed, [field.name]: text })}
              />
            ))}
          </div>
        </Dialog.Body>
        <Dialog.Footer>
          <Button variant="plain" onClick={leave}>
            Leave it
          </Button>
          <Button type="submit" variant="primary">
            {act}
          </Button>
        </Dialog.Footer>
      </form>
    </Dialog>
  );
}

interface AskedProps {
  readonly id: string;
  readonly field: AskedField;
  readonly text: string;
  readonly wrong: string | undefined;
  readonly onText: (text: string) => void;
}

function Asked({
  id,
  field: { label, hint, longest = 200, type = 'text', options, isShort = false },
  text,
  wrong,
  onText,
}: AskedProps): ReactElement {
  return (
    <div className={`mb-3 ${isShort ? 'col-6' : 'col-12'}`}>
      <FormLabel htmlFor={id}>{label}</FormLabel>
      {options ? (
        <FormSelect id={id} value={text} onChange={(event) => onText(event.target.value)}>
          {options.map(([value, name]) => (
            <option key={value} value={value}>
              {name}
            </option>
          ))}
        </FormSelect>
      ) : (
        <FormControl
          id={id}
          type={type}
          step="any"
          className={wrong ? 'is-invalid' : ''}
          maxLength={longest}
          value={text}
          aria-invalid={wrong !== undefined}
          aria-describedby={`${id}-hint`}
          onChange={(event) => onText(event.target.value)}
        />
      )}
      <div id={`${id}-hint`} className={wrong ? 'v-out' : 'soft'}>
        {wrong ?? hint}
      </div>
    </div>
  );
}
