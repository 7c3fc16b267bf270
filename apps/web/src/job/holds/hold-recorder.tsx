import { capital, certificateWords, hasEnded, holdWords, licencesAt, workersAt, type Licence, type PersonView } from '@jubb/book';
import type { HoldPoint, Step } from '@jubb/sheet';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { dayWords, shopToday } from '../../kit/days.ts';
import { LineField } from '../../kit/line-field.tsx';
import { Wrong } from '../../kit/pieces.tsx';
import { useDraft } from '../../kit/prefs.ts';
import { RecorderLayout } from '../recorder/layout.tsx';
import { useHere } from '../use-job.ts';
import { PinField } from './pin-field.tsx';
import { proved } from './prove.ts';

interface HoldRecorderProps {
  readonly step: Step;
  readonly holds: HoldPoint;
}

/** What is kept of somebody's certificate, as it stands beside their name. */
function keptWords(good: Licence | undefined, over: Licence | undefined): string {
  if (good) return good.until === null ? good.number : `${good.number}, until ${dayWords(good.until)}`;
  return over?.until ? `${over.number} ended ${dayWords(over.until)}` : 'no certificate kept here';
}

const NOTHING = { who: '', seen: '', name: '' };

/** A step that is done and waits for somebody else's eyes: who looked, what they saw, and their PIN. */
export function HoldRecorder({ step, holds }: HoldRecorderProps): ReactElement {
  const { job, sheet, state, person, keep, keepAs } = useHere();
  const [draft, setDraft] = useDraft(`${job.id}.${step.ref}.hold`, NOTHING);
  const [pin, setPin] = useState('');
  const [error, setError] = useState<unknown>();
  const [isBusy, setBusy] = useState(false);
  const isCustomer = holds.who === 'customer';
  const isCertified = holds.who === 'certified person';
  const today = shopToday();
  const kept = (one: PersonView): readonly Licence[] => (isCertified ? licencesAt(sheet, step, one.licences ?? []) : []);
  // What is good and lasts longest is what is shown, and put into the field.
  const good = (one: PersonView): Licence | undefined => kept(one).find((licence) => !hasEnded(licence, today));
  const workers = workersAt(state.live, step.ref);
  const may = job.people.filter(({ id, role }) => !workers.includes(id) && (holds.who !== 'foreman' || role === 'foreman'));
  const signer = isCustomer ? person : may.find(({ id }) => id === draft.who);
  const isSelf = signer?.id === person.id;
  const named = isCustomer ? 'Name of the customer' : isCertified ? 'Certificate: number, and who gave it' : undefined;
  const ready = signer && draft.seen.trim() !== '' && (isSelf || pin.length >= 4) && (!named || draft.name.trim() !== '') && !isBusy;
  const go = async (): Promise<void> => {
    if (!ready) return;
    setBusy(true);
    setError(undefined);
    try {
      if (!isSelf) await proved(signer.id, pin);
      const more = isCustomer ? { customer: draft.name.trim() } : named ? { certificate: draft.name.trim() } : {};
      const entry = { kind: 'hold-met' as const, payload: { seen: draft.seen.trim(), ...more }, step: step.ref };
      if (isSelf) keep(entry);
      else keepAs(signer.id, entry);
      setDraft(undefined);
    } catch (refusal) {
      setError(refusal);
      setPin('');
    } finally {
      setBusy(false);
    }
  };
  return (
    <RecorderLayout
      say={`Stop here. ${capital(holdWords(holds))}; the work goes on after that.`}
      primary={{ label: 'Looked at, go on', run: () => void go(), disabled: !ready }}
    >
      {isCustomer ? null : (
        <div className="way-pick mb-2" role="group" aria-label="Who looked">
          {may.map((one) => {
            const { id, name, role } = one;
            const [licence, has] = [kept(one)[0], good(one)];
            return (
              <Button
                key={id}
                variant="plain"
                className={id === draft.who ? 'on' : ''}
                aria-pressed={id === draft.who}
                disabled={licence !== undefined && !has}
                onClick={() => setDraft({ ...draft, who: id, ...(isCertified ? { name: has ? certificateWords(has) : '' } : {}) })}
              >
                {name} <span className="soft">{role}</span>
                {isCertified ? <small className="d-block soft">{keptWords(has, licence)}</small> : null}
              </Button>
            );
          })}
          {may.length === 0 ? (
            <p className="mb-0">
              Nobody else who works here may look at it ({holds.who}). Where that stays so, the hold is taken off the sheet in a draft, and
              this job goes on by the new revision.
            </p>
          ) : null}
        </div>
      )}
      <div className="d-grid gap-2">
        <LineField
          label="What was seen, with its figure where there is one"
          longest={300}
          text={draft.seen}
          onText={(seen) => setDraft({ ...draft, seen })}
          onEnter={() => void go()}
        />
        {named ? (
          <LineField
            label={named}
            longest={100}
            text={draft.name}
            onText={(name) => setDraft({ ...draft, name })}
            onEnter={() => void go()}
          />
        ) : null}
        {signer && !isSelf ? <PinField of={signer.name} pin={pin} onPin={setPin} onEnter={() => void go()} /> : null}
      </div>
      <Wrong error={error} />
    </RecorderLayout>
  );
}
