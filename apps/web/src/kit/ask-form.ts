import { validated } from '@jubb/sheet/given';
import type { FieldProblem } from '@jubb/wire';
import { useEffect, useState, type FormEvent } from 'react';
import {
  set as put,
  useForm,
  type DefaultValues,
  type FieldErrors,
  type FieldPath,
  type FieldValues,
  type Resolver,
  type UseFormReturn,
} from 'react-hook-form';
import { Refusal } from '../link/client.ts';
import { keepDraft, readDraft } from './prefs.ts';

interface AskFormOptions<V extends FieldValues, B> {
  /** The class that the server checks the request with checks the form. */
  readonly type: new () => object;
  readonly initial: V;
  /** What is half typed is kept on this device under this name, until it was sent. */
  readonly draft?: string;
  /** The request, where it is not what stands in the form. */
  readonly toBody?: (values: V) => B & object;
  /** Fields of the request by the name that the form knows them by. */
  readonly names?: Readonly<Record<string, FieldPath<V>>>;
  readonly onSend: (body: B, values: V) => Promise<unknown>;
}

export interface AskForm<V extends FieldValues> {
  readonly form: UseFormReturn<V>;
  /** Checks and sends. */
  readonly keep: (event?: FormEvent) => Promise<void>;
  readonly busy: boolean;
  /** Why it was not taken. */
  readonly error: unknown;
  /** What is wrong with what no field shows. */
  readonly elsewhere: readonly FieldProblem[];
  /** Lets go of what was typed. */
  readonly begin: (values: V) => void;
}

/** A form that asks the server for something: checked by the class of the request before it goes, refusals at their fields. */
export function useAskForm<V extends FieldValues, B = V>({
  type,
  initial,
  draft,
  toBody = (values) => values as unknown as B & object,
  names = {},
  onSend,
}: AskFormOptions<V, B>): AskForm<V> {
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<unknown>();
  const nameOf = (path: string): FieldPath<V> => names[path] ?? (path as FieldPath<V>);
  const resolver: Resolver<V> = (values) => {
    const errors: FieldErrors<V> = {};
    for (const { path, message } of validated(type, toBody(values)).issues) put(errors, nameOf(path), { type: 'wrong', message });
    return Object.keys(errors).length > 0 ? { values: {}, errors } : { values, errors: {} };
  };
  // A draft of an older form lacks what came since.
  const [begun] = useState(() => ({ ...initial, ...(draft === undefined ? {} : readDraft<V>(draft)) }) as DefaultValues<V>);
  const form = useForm<V>({ defaultValues: begun, resolver });
  const { subscribe, handleSubmit, setError: setFieldError, formState } = form;
  useEffect(
    () =>
      draft === undefined ? undefined : subscribe({ formState: { values: true }, callback: ({ values }) => keepDraft(draft, values) }),
    [subscribe, draft],
  );
  const begin = (values: V): void => {
    form.reset(values);
    if (draft !== undefined) keepDraft(draft, undefined);
    setError(undefined);
  };
  const keep = handleSubmit(async (values) => {
    setBusy(true);
    setError(undefined);
    try {
      await onSend(toBody(values), values);
      if (draft !== undefined) keepDraft(draft, undefined);
    } catch (refusal) {
      setError(refusal);
      if (refusal instanceof Refusal) for (const { field, allowed } of refusal.fields) setFieldError(nameOf(field), { message: allowed });
    } finally {
      setBusy(false);
    }
  });
  const elsewhere = Object.entries(formState.errors).flatMap(([field, problem]) =>
    Object.hasOwn(initial, field) ? [] : [{ field, allowed: String(problem?.message ?? '') }],
  );
  return { form, keep, busy, error, elsewhere, begin };
}
