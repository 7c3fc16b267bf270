import { hasEnded } from '@jubb/book';
import { HAZARDS, type Hazard } from '@jubb/sheet';
import { ENDPOINTS, LicenceBody, type PersonLine } from '@jubb/wire';
import { useState, type ReactElement } from 'react';
import { useWatch } from 'react-hook-form';
import Button from 'react-bootstrap/Button';
import { useAskForm } from '../kit/ask-form.ts';
import { Asking } from '../kit/asking.tsx';
import { dayWords, shopToday } from '../kit/days.ts';
import { Field } from '../kit/field.tsx';
import { PaperIn } from '../kit/paper-in.tsx';
import { Wrong } from '../kit/pieces.tsx';
import { offerUndo } from '../kit/undo.ts';
import { useSend } from '../kit/use-send.ts';
import { addressOf, ask } from '../link/client.ts';
import { refresh } from '../link/queries.ts';

const again = (): Promise<unknown> => refresh({ queryKey: ['people'] });

/** What somebody is licensed for: holds of a certified person and licensed steps go by it, and Today says when one ends. */
export function Certificates({ person }: { readonly person: PersonLine }): ReactElement {
  const [isAsked, setAsked] = useState(false);
  const { busy, error, send } = useSend();
  const today = shopToday();
  const licences = person.licences ?? [];
  const drop = ({ id, covers, number, givenBy, until, paperId }: (typeof licences)[number]): void => {
    void send(async () => {
      await ask(ENDPOINTS.people.dropLicence, { id });
      await again();
      // One that is over is not kept anew.
      if (!hasEnded({ until }, today))
        offerUndo(`Certificate ${number} is off`, async () => {
          const body = { covers, number, givenBy, ...(until === null ? {} : { until }), ...(paperId === null ? {} : { paperId }) };
          await ask(ENDPOINTS.people.addLicence, { id: person.id, body });
          await again();
        });
    });
  };
  return (
    <section className="mt-4" aria-label={`Certificates of ${person.name}`}>
      <h3>Certificates</h3>
      {licences.length === 0 ? (
        <p className="soft">None is kept. Refrigerant, pressure, lifting, high voltage: what the law asks for.</p>
      ) : null}
      <ul className="list-unstyled">
        {licences.map((licence) => {
          const { id, covers, number, givenBy, until, paperId } = licence;
          return (
            <li key={id} className="d-flex flex-wrap gap-2 align-items-center mb-1">
              <span>
                <b>{covers}</b> {number}, {givenBy},{' '}
                <span className={hasEnded(licence, today) ? 'v-out' : ''}>
                  {until === null ? 'no end' : `${hasEnded(licence, today) ? 'ended' : 'until'} ${dayWords(until)}`}
                </span>{' '}
                {paperId ? (
                  <a href={addressOf(ENDPOINTS.papers.read, { id: paperId })} target="_blank" rel="noreferrer">
                    its PDF
                  </a>
                ) : null}
              </span>
              <Button variant="quiet" disabled={busy} onClick={() => drop(licence)}>
                Take it off<span className="visually-hidden"> {number}</span>
              </Button>
            </li>
          );
        })}
      </ul>
      <Wrong error={error} />
      {isAsked ? (
        <NewCertificate person={person} onDone={() => setAsked(false)} />
      ) : (
        <Button variant="plain" onClick={() => setAsked(true)}>
          Add a certificate
        </Button>
      )}
    </section>
  );
}

interface Typed {
  covers: Hazard;
  number: string;
  givenBy: string;
  until: string;
  paper: { readonly id: string; readonly name: string } | null;
}

const FRESH: Typed = { covers: 'refrigerant', number: '', givenBy: '', until: '', paper: null };

function NewCertificate({ person, onDone }: { readonly person: PersonLine; readonly onDone: () => void }): ReactElement {
  const form = useAskForm<Typed, LicenceBody>({
    type: LicenceBody,
    initial: FRESH,
    toBody: ({ covers, number, givenBy, until, paper }) => ({
      ...{ covers, number, givenBy },
      ...(until === '' ? {} : { until }),
      ...(paper === null ? {} : { paperId: paper.id }),
    }),
    onSend: async (body) => {
      await ask(ENDPOINTS.people.addLicence, { id: person.id, body });
      await again();
      onDone();
    },
  });
  const paper = useWatch({ control: form.form.control, name: 'paper' });
  return (
    <Asking of={form} act="Keep the certificate">
      <Field of="licence" name="covers" label="Lets them work at" options={HAZARDS.map((hazard) => [hazard, hazard] as const)} />
      <Field of="licence" name="number" label="Number" maxLength={60} className="fig" />
      <Field of="licence" name="givenBy" label="Given by" maxLength={80} />
      <Field of="licence" name="until" label="Good until" type="date" hint="Nothing where it has no end." />
      {paper ? (
        <p>With {paper.name}</p>
      ) : (
        <PaperIn words="The certificate as a PDF" onPaper={(brought) => form.form.setValue('paper', brought)} />
      )}
    </Asking>
  );
}
