import type { ReactElement } from 'react';
import { useNavigate } from 'react-router';
import { Title } from '../kit/pieces.tsx';
import { ToolForm } from './tool-form.tsx';

export function NewTool(): ReactElement {
  const go = useNavigate();
  return (
    <>
      <Title>A new tool</Title>
      <div className="work" style={{ maxWidth: 720 }}>
        <ToolForm onDone={({ id }) => void go(`/crib/tools/${id}`)} />
      </div>
    </>
  );
}
