import { useId, useLayoutEffect, useRef, useState, type ReactElement } from 'react';
import { Dialog } from './dialog.ts';
import { useDraft } from './prefs.ts';

interface AskLineProps {
  readonly title: string;
  readonly fields: readonly {
    readonly name: string;
    readonly label: string;
    readonly required?: boolean;
    readonly hint?: string;
    readonly longest?: number;
    readonly type?: 'date' | 'number';
  }[];
  readonly act: string;
  readonly onDone: (answers: Readonly<Record<string, string>>) => void;
  readonly onClose: () => void;
}

/** Asks for a line or two: why it is struck, what is open. Enter keeps it, Escape leaves it, a reload loses nothing. */
export function AskLine({ title, fields, act, onDone, onClose }: AskLineProps): ReactElement {
  const [answers, setAnswers] = useDraft<Readonly<Record<string, string>>>(`ask.${title}`, {});
  const [tried, setTried] = useState(false);
  const first = useRef<HTMLInputElement>(null);
  const id = useId();
  useLayoutEffect(() => first.current?.focus(), []);
  const missing = (name: string): boolean => fields.some((field) => field.name === name && field.required && !answers[name]?.trim());
  const keep = (): void => {
    setTried(true);
    if (fields.some((field) => missing(field.name))) return;
    setAnswers(undefined);
    onDone(answers);
  };
  const leave = (): void => {
    setAnswers(undefined);
    onClose();
  };
  return (
    <Dialog show centered onHide={leave} animation={false} aria-labelledby={`${id}-title`} restoreFocus>
      <form
        noValidate
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
          {fields.map(({ name, label, hint, longest = 200, type = 'text' }, index) => (
            <div className="mb-3" key={name}>
              <label className="form-label" htmlFor={`${id}-${name}`}>
                {label}
              </label>
              <input
                id={`${id}-${name}`}
                type={type}
                ref={index === 0 ? first : undefined}
                className={`form-control ${tried && missing(name) ? 'is-invalid' : ''}`}
                maxLength={longest}
                value={answers[name] ?? ''}
                aria-invalid={tried && missing(name)}
                aria-describedby={`${id}-${name}-hint`}
                onChange={(event) => setAnswers({ ...answers, [name]: event.target.value })}
              />
              <div id={`${id}-${name}-hint`} className={tried && missing(name) ? 'v-out' : 'soft'}>
                {tried && missing(name) ? 'Say it in a word or two' : hint}
              </div>
            </div>
          ))}
        </Dialog.Body>
        <Dialog.Footer>
          <button type="button" className="btn btn-plain" onClick={leave}>
            Leave it
          </button>
          <button type="submit" className="btn btn-primary">
            {act}
          </button>
        </Dialog.Footer>
      </form>
    </Dialog>
  );
}
