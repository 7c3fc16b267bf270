import type { ReactElement } from 'react';
import { useNavigate } from 'react-router';
import { Title } from '../kit/pieces.tsx';
import { StockForm } from './stock-form.tsx';

export function NewStockLine(): ReactElement {
  const go = useNavigate();
  return (
    <>
      <Title>A new line</Title>
      <div className="work" style={{ maxWidth: 640 }}>
        <StockForm onDone={({ id }) => void go(`/stores/${id}`)} />
      </div>
    </>
  );
}
