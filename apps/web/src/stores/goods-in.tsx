import { toCome } from '@jubb/book';
import { ENDPOINTS, type GoodsInBody, type OrderView } from '@jubb/wire';
import { useState, type ReactElement } from 'react';
import { v7 as uuid } from 'uuid';
import Button from 'react-bootstrap/Button';
import FormControl from 'react-bootstrap/FormControl';
import FormLabel from 'react-bootstrap/FormLabel';
import { Wrong } from '../kit/pieces.tsx';
import { useSend } from '../kit/use-send.ts';
import { ask } from '../link/client.ts';
import { refreshStores } from './queries.ts';

/** What lies on the counter: each bag by what stands on it, counted before it is put away. */
export function GoodsIn({ order, notes }: { readonly order: OrderView; readonly notes: OrderView['notes'] }): ReactElement {
  const [id] = useState(() => uuid());
  const [counted, setCounted] = useState<Readonly<Record<string, { number: string; quantity: string; why: string }>>>(
    Object.fromEntries(notes.map((note) => [note.lineId, { number: note.number, quantity: String(note.quantity), why: '' }])),
  );
  const { busy, error, send } = useSend();
  const put = (): void => {
    const body: GoodsInBody = {
      id,
      lines: notes.map(({ lineId }) => {
        const { number, quantity, why } = counted[lineId]!;
        return { lineId, number, quantity: Number(quantity), ...(why.trim() ? { why: why.trim() } : {}) };
      }),
    };
    void send(() => ask(ENDPOINTS.orders.goodsIn, { id: order.id, body })).then(refreshStores);
  };
  return (
    <div className="mt-3">
      <h3>{order.byHand ? 'What came' : 'The van brought'}</h3>
      {notes.map((note) => {
        const line = order.lines.find(({ id: lineId }) => lineId === note.lineId);
        const typed = counted[note.lineId]!;
        const isWrong = line && typed.number.trim() !== line.number;
        const owed = line ? toCome(line) : 0;
        const isMore = !isWrong && Number(typed.quantity) > owed;
        return (
          <div key={note.lineId} className="d-flex flex-wrap gap-3 align-items-end mb-2">
            <div>
              <FormLabel htmlFor={`bag-${note.lineId}`}>{line?.name}: on the bag</FormLabel>
              <FormControl
                id={`bag-${note.lineId}`}
                className={`fig ${isWrong ? 'is-invalid' : ''}`}
                value={typed.number}
                maxLength={60}
                onChange={(event) => setCounted({ ...counted, [note.lineId]: { ...typed, number: event.target.value } })}
              />
            </div>
            <div style={{ width: 110 }}>
              <FormLabel htmlFor={`count-${note.lineId}`}>Pieces</FormLabel>
              <FormControl
                id={`count-${note.lineId}`}
                className="fig"
                inputMode="numeric"
                value={typed.quantity}
                onChange={(event) => setCounted({ ...counted, [note.lineId]: { ...typed, quantity: event.target.value } })}
              />
            </div>
            {isMore ? (
              <div className="flex-grow-1">
                <FormLabel htmlFor={`why-${note.lineId}`}>
                  {owed} {owed === 1 ? 'is' : 'are'} still due. Why more is kept
                </FormLabel>
                <FormControl
                  id={`why-${note.lineId}`}
                  value={typed.why}
                  maxLength={200}
                  onChange={(event) => setCounted({ ...counted, [note.lineId]: { ...typed, why: event.target.value } })}
                />
              </div>
            ) : null}
            {isWrong ? <span className="v-out">{line.number} was ordered: these go back</span> : null}
          </div>
        );
      })}
      <Wrong error={error} />
      <Button variant="primary" disabled={busy} onClick={put}>
        Put it away
      </Button>
    </div>
  );
}
