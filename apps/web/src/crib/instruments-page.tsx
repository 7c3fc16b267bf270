import { ENDPOINTS, type InstrumentView, type LinesView, type LiveLine } from '@jubb/wire';
import { formatQuantity } from '@jubb/core';
import { Suspense, lazy, useEffect, useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { ask } from '../link/client.ts';
import { refresh, useInstruments, useSession } from '../link/queries.ts';
import { fieldWords, Loading, Title, Wrong } from '../kit/pieces.tsx';
import { offerUndo } from '../kit/undo.ts';
import { onLine } from '../link/hearing.ts';
import { letGo, rememberedCables } from '../link/serial.ts';
import { AnotherSender } from './another-sender.tsx';
import { ByCable } from './by-cable.tsx';
import './instruments.scss';

// For practice and tests; a bench with real instruments never opens it.
const Driver = lazy(async () => ({ default: (await import('./driver.tsx')).Driver }));

/** Instruments that send by themselves: which tablet each is paired with, what it last read, and a stand-in for each. */
export function InstrumentsPage(): ReactElement {
  const { data: instruments, error } = useInstruments();
  const { data: session } = useSession();
  const [open, setOpen] = useState<string>();
  if (!instruments) return error ? <Wrong error={error} /> : <Loading what="the instruments" />;
  return (
    <>
      <Title sub="What an instrument sends goes to the tablet that it is paired with: into the field that is asked for there.">
        Instruments
      </Title>
      {instruments.length === 0 ? <p>No tool of the crib sends by itself yet.</p> : null}
      {instruments.map((instrument) => (
        <Instrument
          key={instrument.id}
          instrument={instrument}
          isOpen={open === instrument.id}
          onOpen={() => setOpen(open === instrument.id ? undefined : instrument.id)}
        />
      ))}
      {session?.person.role === 'foreman' ? <AnotherSender key={instruments.length} instruments={instruments} /> : null}
    </>
  );
}

interface InstrumentProps {
  readonly instrument: InstrumentView;
  readonly isOpen: boolean;
  readonly onOpen: () => void;
}

function Instrument({ instrument, isOpen, onOpen }: InstrumentProps): ReactElement {
  const { data: session } = useSession();
  const { id, tool, tablet } = instrument;
  const last = useLast(instrument);
  const [error, setError] = useState<unknown>();
  const [key, setKey] = useState<string>();
  const [isCable, setCable] = useState(() => rememberedCables().some((cable) => cable.instrumentId === id));
  const [answer, setAnswer] = useState<LinesView>();
  const isHere = tablet !== null && tablet.id === session?.tablet?.id;
  const pair = async (tabletId: string | null): Promise<void> => {
    try {
      await ask(ENDPOINTS.instruments.pair, { id, body: { tabletId } });
      setError(undefined);
      await refresh({ queryKey: ['instruments'] });
    } catch (refusal) {
      setError(refusal);
    }
  };
  const end = async (): Promise<void> => {
    try {
      await letGo(id);
      await ask(ENDPOINTS.instruments.end, { id });
      offerUndo(`${tool.tag} sends no more`, async () => {
        await ask(ENDPOINTS.instruments.begin, { body: { toolId: tool.id, clicks: instrument.clicks } });
        await refresh({ queryKey: ['instruments'] });
      });
      await refresh({ queryKey: ['instruments'] });
    } catch (refusal) {
      setError(refusal);
    }
  };
  const newKey = async (): Promise<void> => {
    try {
      setKey((await ask(ENDPOINTS.instruments.newKey, { id })).key);
    } catch (refusal) {
      setError(refusal);
    }
  };
  return (
    <section className="instrument" aria-label={`${tool.tag} ${tool.name}`}>
      <div className="instrument-head">
        <b className="fig fs-3">{tool.tag}</b>
        <div>
          <b>{tool.name}</b>
          <div className="soft">{tablet ? `paired with ${isHere ? 'this tablet' : tablet.name}` : 'paired with no tablet'}</div>
        </div>
        <LastLine line={last} />
        <div className="keys mt-0">
          <Button
            variant="plain"
            aria-label={`${tool.tag}: ${isHere ? 'let it go' : 'pair with this tablet'}`}
            onClick={() => void pair(isHere ? null : (session?.tablet?.id ?? null))}
          >
            {isHere ? 'Let it go' : 'Pair with this tablet'}
          </Button>
          <Button variant="plain" aria-expanded={isOpen} aria-label={`${tool.tag}: stand-in`} onClick={onOpen}>
            Stand-in
          </Button>
          {isHere ? (
            <Button variant="plain" aria-expanded={isCable} aria-label={`${tool.tag}: by cable`} onClick={() => setCable(!isCable)}>
              By cable
            </Button>
          ) : null}
          {session?.person.role === 'foreman' ? (
            <>
              <Button variant="plain" aria-label={`${tool.tag}: new key`} onClick={() => void newKey()}>
                New key
              </Button>
              <Button variant="plain" aria-label={`${tool.tag}: sends no more`} onClick={() => void end()}>
                Sends no more
              </Button>
            </>
          ) : null}
        </div>
      </div>
      {key ? (
        <p className="brass">
          Its key, shown this once: <code>{key}</code>. It sends lines to <code>/api/v1/instruments/{id}/lines</code> with it.
        </p>
      ) : null}
      <Wrong error={error} />
      {(answer?.refused ?? []).map((problem) => (
        <p key={`${problem.line ?? ''}${problem.field}`} className="v-out mb-0">
          Refused: {fieldWords(problem)}
        </p>
      ))}
      {isHere && isCable ? <ByCable instrument={instrument} /> : null}
      {isOpen ? (
        <Suspense>
          <Driver instrument={instrument} lastN={last?.n ?? 0} onAnswer={setAnswer} onError={setError} />
        </Suspense>
      ) : null}
    </section>
  );
}

/** The newest line of an instrument, as the stream brings it. */
function useLast({ id, last }: InstrumentView): LiveLine | null {
  const [heard, setHeard] = useState<LiveLine>();
  useEffect(() => onLine((line) => line.instrumentId === id && setHeard(line)), [id]);
  return heard && heard.at > (last?.at ?? '') ? heard : last;
}

function LastLine({ line }: { readonly line: LiveLine | null }): ReactElement {
  if (!line) return <span className="soft">nothing sent yet</span>;
  return (
    <div>
      <b className="fig fs-2">{line.base === null ? 'click' : formatQuantity(line.base, line.quantity, line.unit)}</b>
      {line.angle === undefined ? null : <span className="fig"> {line.angle}°</span>}
      <div className="soft">
        line {line.n}
        {line.taken ? ', sent' : ''}
        {line.battery === 'low' ? <b className="v-unsure">, battery low</b> : null}
      </div>
      {line.marked ? <div className="v-out">{line.marked}</div> : null}
    </div>
  );
}
