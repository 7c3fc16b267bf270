import { ENDPOINTS } from '@jubb/wire';
import { useState, type FormEvent, type ReactElement } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { Refusal, ask } from '../link/client.ts';
import { queryClient } from '../link/queries.ts';
import { Title, Wrong } from '../kit/pieces.tsx';
import { useDraft } from '../kit/prefs.ts';
import { useFamilies } from './queries.ts';
import './sheets.scss';

interface NewSheetDraft {
  readonly family: string;
  readonly make: string;
  readonly model: string;
  readonly machine: string;
}

const FIELDS = [
  ['make', 'Make'],
  ['model', 'Model'],
  ['machine', 'Machine it is off'],
] as const;

/** Begins a sheet from the work of its family; every figure in it is to be found. */
export function NewSheet(): ReactElement {
  const [params] = useSearchParams();
  const given = params.get('family') ?? '';
  const families = useFamilies();
  const [draft, setDraft] = useDraft<NewSheetDraft>('new-sheet', { family: given, make: '', model: '', machine: '' });
  const [error, setError] = useState<unknown>();
  const go = useNavigate();
  const wrong = (field: string): string | undefined =>
    error instanceof Refusal ? error.fields.find((problem) => problem.field === field)?.allowed : undefined;
  const begin = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    setError(undefined);
    try {
      const { revisionId } = await ask(ENDPOINTS.sheets.begin, { body: draft });
      setDraft(undefined);
      await queryClient.invalidateQueries({ queryKey: ['sheets'] });
      void go(params.get('from') === 'book-in' ? `/jobs/new?sheet=${revisionId}` : `/sheets/${revisionId}/edit`);
    } catch (refusal) {
      setError(refusal);
    }
  };
  return (
    <>
      <Title sub="It begins with the steps, joints and limits of its family. Every figure stands as unverified until it is found for this model.">
        New sheet
      </Title>
      <form className="narrow-form" noValidate onSubmit={(event) => void begin(event)}>
        <Wrong error={error} hide={['family', 'make', 'model', 'machine']} />
        <div className="mb-3">
          <label className="form-label" htmlFor="family">
            Family
          </label>
          <input
            id="family"
            list="families"
            className={`form-control ${wrong('family') ? 'is-invalid' : ''}`}
            autoComplete="off"
            value={draft.family}
            onChange={(event) => setDraft({ ...draft, family: event.target.value })}
          />
          <datalist id="families">
            {families.map((family) => (
              <option key={family} value={family} />
            ))}
          </datalist>
          <div className="soft">
            {draft.family === '' || families.includes(draft.family)
              ? 'What kind of unit is it? Pick one, or name one of your own.'
              : 'A family of your own: the sheet begins with the stages of any rebuild.'}
          </div>
          <div className="v-out">{wrong('family')}</div>
        </div>
        {FIELDS.map(([name, label]) => (
          <div key={name} className="mb-3">
            <label className="form-label" htmlFor={name}>
              {label}
            </label>
            <input
              id={name}
              className={`form-control ${wrong(name) ? 'is-invalid' : ''}`}
              autoComplete="off"
              value={draft[name]}
              onChange={(event) => setDraft({ ...draft, [name]: event.target.value })}
            />
            <div className="v-out">{wrong(name)}</div>
          </div>
        ))}
        <button type="submit" className="btn btn-primary">
          Begin it
        </button>
      </form>
    </>
  );
}
