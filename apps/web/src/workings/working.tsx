import { workings } from '@jubb/core';
import { useMemo, type ReactElement } from 'react';
import { useParams } from 'react-router';
import { WorkingForm } from './working-form.tsx';

/** Any working, from its description alone: form, result, way, drawing, sources. */
export function WorkingPage(): ReactElement {
  const { id = '' } = useParams();
  const working = useMemo(() => workings.describe(id), [id]);
  if (!working) return <p>There is no such working. The list stands under Workings.</p>;
  return <WorkingForm key={id} working={working} />;
}
