import { ENDPOINTS, NewSheetBody } from '@jubb/wire';
import type { ReactElement } from 'react';
import { useWatch } from 'react-hook-form';
import { useNavigate, useSearchParams } from 'react-router';
import { ask } from '../link/client.ts';
import { queryClient } from '../link/queries.ts';
import { useAskForm } from '../kit/ask-form.ts';
import { Asking } from '../kit/asking.tsx';
import { Field } from '../kit/field.tsx';
import { Title } from '../kit/pieces.tsx';
import { useFamilies } from './queries.ts';
import './sheets.scss';

/** Begins a sheet from the work of its family; every figure in it is to be found. */
export function NewSheet(): ReactElement {
  const [params] = useSearchParams();
  const families = useFamilies();
  const go = useNavigate();
  const form = useAskForm({
    type: NewSheetBody,
    draft: 'new-sheet',
    initial: { family: params.get('family') ?? '', make: '', model: '', machine: '' },
    onSend: async (body) => {
      const { revisionId } = await ask(ENDPOINTS.sheets.begin, { body });
      await queryClient.invalidateQueries({ queryKey: ['sheets'] });
      void go(params.get('from') === 'book-in' ? `/jobs/new?sheet=${revisionId}` : `/sheets/${revisionId}/edit`);
    },
  });
  const family = useWatch({ control: form.form.control, name: 'family' });
  return (
    <>
      <Title sub="It begins with the steps, joints and limits of its family. Every figure stands as unverified until it is found for this model.">
        New sheet
      </Title>
      <Asking of={form} className="narrow-form" act="Begin it">
        <Field
          name="family"
          label="Family"
          list="families"
          hint={
            family === '' || families.includes(family)
              ? 'What kind of unit is it? Pick one, or name one of your own.'
              : 'A family of your own: the sheet begins with the stages of any rebuild.'
          }
        />
        <datalist id="families">
          {families.map((one) => (
            <option key={one} value={one} />
          ))}
        </datalist>
        <Field name="make" label="Make" />
        <Field name="model" label="Model" />
        <Field name="machine" label="Machine it is off" />
      </Asking>
    </>
  );
}
