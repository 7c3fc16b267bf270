import type { ReactElement } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { CRIB_KINDS } from '@jubb/sheet';
import { Title } from '../kit/pieces.tsx';
import { ToolForm } from './tool-form.tsx';

export function NewTool(): ReactElement {
  const go = useNavigate();
  const [search] = useSearchParams();
  const kind = CRIB_KINDS.find((one) => one === search.get('kind'));
  return (
    <>
      <Title>A new tool</Title>
      <div className="work" style={{ maxWidth: 720 }}>
        <ToolForm {...(kind ? { kind } : {})} onDone={({ id }) => void go(`/crib/tools/${id}`)} />
      </div>
    </>
  );
}
