import { FIT_MEASURED, FIT_WAYS, driverWords, fitWindow, presetForFit, type FitRun, type KeptEntry } from '@jubb/book';
import { baseRef, type Step } from '@jubb/sheet';
import { coolingAfter, formatQuantity, workings, type WorkingRun } from '@jubb/core';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { useNow } from '../../clocks/use-clocks.ts';
import { useHere } from '../../job/use-job.ts';
import { FigureField, readFigure } from '../../kit/figure-field.tsx';
import { LineField } from '../../kit/line-field.tsx';
import { Care } from '../../kit/pieces.tsx';
import { readStored, useDraft, writeStored } from '../../kit/prefs.ts';
import { useUnits } from '../../kit/units.ts';
import { WorkingForm } from '../../workings/working-form.tsx';
import { useWorkedBefore } from '../measure/earlier.tsx';
import { RecorderLayout } from '../../job/recorder/layout.tsx';
import { useWay } from './use-way.ts';

type By = KeptEntry<'fitted'>['payload']['by'];

const BY_WORDS: Readonly<Record<By, string>> = { press: 'Press', heat: 'Warm and drop', hand: 'Driver and hammer' };
/** What press and drivers the shop has, as they were typed the last time. */
const SHOP_HAS = 'fit.has';
const BENCH_C = 20;

interface FitProps {
  readonly run: FitRun;
  readonly step: Step;
}

/** Shaft against bore, then home: by a force that is known beforehand, or by a temperature and the seconds it gives. */
export function FitRecorder({ step }: { readonly step: Step }): ReactElement | null {
  const { state } = useHere();
  const [isAgain, setAgain] = useState(false);
  const run = state.fits.find(({ fit }) => fit.ref === step.record.fit);
  if (!run) return null;
  if (!run.measured || isAgain) return <MeasureFit run={run} step={step} onKept={() => setAgain(false)} />;
  return <GoHome key={run.measured.id} run={run} step={step} measured={run.measured} onAgain={() => setAgain(true)} />;
}

function MeasureFit({ run, step, onKept }: FitProps & { readonly onKept: () => void }): ReactElement | null {
  const { job, keep } = useHere();
  const { fit } = run;
  const working = workings.describe(FIT_MEASURED);
  if (!working) return null;
  const kept = ({ working: id, input }: WorkingRun): void => {
    keep({ kind: 'worked', payload: { working: id, input, fit: fit.ref }, step: step.ref });
    onKept();
  };
  return (
    <RecorderLayout
      say={`${fit.name}: both seats clean, at one temperature, two ways across. Wanted ${windowText(run)}.`}
      wide={
        <WorkingForm
          isPart
          working={working}
          draftKey={`${job.id}.${fit.ref}.measured.${run.measured?.id ?? ''}`}
          preset={presetForFit(FIT_MEASURED, run, BENCH_C)}
          under={(answer) => (
            <p>
              <Button variant="primary" onClick={() => kept(answer)}>
                Keep these sizes
              </Button>
            </p>
          )}
        />
      }
    >
      {fit.how ? <p className="soft mb-0">{fit.how}</p> : null}
    </RecorderLayout>
  );
}

function windowText({ fit }: FitRun): string {
  const window = fitWindow(fit);
  if (!window) return '';
  const ends = [window.from, window.to].map((mm) => formatQuantity(mm, 'length', 'µm')).join(' to ');
  return `${ends} of interference${fit.zones ? `, ${fit.zones}` : ''}; minus is play`;
}

interface GoHomeProps extends FitProps {
  readonly measured: KeptEntry<'worked'>;
  readonly onAgain: () => void;
}

function GoHome({ run, step, measured, onAgain }: GoHomeProps): ReactElement {
  const { job, keep } = useHere();
  const units = useUnits();
  const { fit, verdict, worked } = run;
  const before = useWorkedBefore()?.fits.find((one) => one.fit === baseRef(fit));
  const [typed, setTyped] = useDraft<Partial<Record<'by' | 'driver' | 'support' | 'home' | 'seen' | 'note', string>>>(
    `${job.id}.${fit.ref}.home`,
    {},
  );
  const { chosen: way } = useWay(step);
  // A step with ways of its own is asked which of them above.
  const by = way?.by ?? ((typed.by ?? before?.by ?? 'press') as By);
  const driver = typed.driver ?? before?.driver ?? '';
  const support = typed.support ?? before?.support ?? '';
  const home = typed.home ?? '';
  const note = typed.note ?? '';
  const seenQuantity = by === 'heat' ? 'temperature' : 'force';
  const seen = readFigure(typed.seen ?? '', seenQuantity, units.symbol(seenQuantity), {
    least: by === 'heat' ? -200 : 0,
    most: by === 'heat' ? 400 : 1e7,
  });
  const isOut = verdict !== 'in';
  // What is warmed ahead is warmed as it was worked out.
  const isCold = by === 'heat' && step.lead !== undefined && !worked;
  const lacks = [
    ...(isCold ? ['how warm it must be'] : []),
    ...(driver.trim() === '' ? ['what it was driven with'] : []),
    ...(home.trim() === '' ? ['how one knows that it is home'] : []),
    ...(isOut && note.trim() === '' ? ['why it goes in although it is out'] : []),
  ];
  const done = (): void => {
    if (lacks.length > 0) return;
    keep({
      kind: 'fitted',
      payload: {
        fit: fit.ref,
        by,
        driver: driver.trim(),
        home: home.trim(),
        ...(support.trim() ? { support: support.trim() } : {}),
        ...(note.trim() ? { note: note.trim() } : {}),
        ...(by === 'press' && seen.base !== undefined ? { force: seen.base } : {}),
        ...(by === 'heat' && seen.base !== undefined ? { temperature: seen.base } : {}),
      },
      step: step.ref,
    });
    setTyped(undefined);
  };
  const field = (name: 'driver' | 'support' | 'home' | 'note', label: string, text: string, placeholder: string): ReactElement => (
    <LineField
      label={label}
      longest={name === 'note' ? 300 : 100}
      placeholder={placeholder}
      text={text}
      onText={(next) => setTyped({ ...typed, [name]: next })}
    />
  );
  return (
    <RecorderLayout
      number={{
        figure: formatQuantity(Number(measured.working?.output['interference'] ?? 0), 'length', 'µm').replace(/\s.*$/u, ''),
        unit: 'µm',
        under: (
          <>
            <b className={`v-${verdict ?? 'unsure'}`}>{verdict ?? 'not judged'}</b> <span className="soft">wanted {windowText(run)}</span>
          </>
        ),
      }}
      say={
        <>
          {by === 'heat' && worked?.payload.working === FIT_WAYS.heat ? <Falling key={worked.id} worked={worked} /> : null}
          {isCold ? <b className="d-block brass">How warm comes first: it is worked out below.</b> : null}
          {driverWords(fit)}
        </>
      }
      primary={{ label: 'It is home', run: done, lacks }}
      others={[{ label: 'Measure again', key: 'a', run: onAgain }]}
      wide={<HowHome run={run} step={step} by={by} onDriver={(name) => setTyped({ ...typed, driver: name })} />}
    >
      {isOut ? <OtherWays measured={measured} /> : null}
      {way ? null : (
        <div className="d-flex flex-wrap gap-2 mb-2" role="group" aria-label="How it goes home">
          {(Object.keys(BY_WORDS) as By[]).map((one) => (
            <Button
              key={one}
              variant="plain"
              className={one === by ? 'on' : ''}
              aria-pressed={one === by}
              onClick={() => setTyped({ ...typed, by: one })}
            >
              {BY_WORDS[one]}
            </Button>
          ))}
        </div>
      )}
      <div className="d-grid gap-2">
        {field('driver', 'Driver, tube or plate', driver, 'Tube 36/42')}
        {field('support', 'What stands under it', support, 'Tube 70, under the inner ring')}
        {by === 'hand' ? null : (
          <FigureField
            label={by === 'press' ? 'Most that the press showed' : 'How warm it was'}
            quantity={seenQuantity}
            unit={units.symbol(seenQuantity)}
            text={typed.seen ?? ''}
            onText={(text) => setTyped({ ...typed, seen: text })}
          />
        )}
        {field('home', 'What shows that it is home', home, 'The note changed; no feeler goes under')}
        {isOut ? field('note', 'Why it goes in all the same', note, 'It is printed in the report') : null}
      </div>
      {before ? <p className="soft mt-2 mb-0">Driver and support as the last time.</p> : null}
    </RecorderLayout>
  );
}

/** What can be done with a fit that is not what is wanted. */
function OtherWays({ measured }: { readonly measured: KeptEntry<'worked'> }): ReactElement {
  const ways = (measured.working?.output['ways'] ?? []) as readonly {
    readonly way: string;
    readonly possible: boolean;
    readonly why: string;
  }[];
  return (
    <Care title="Not what is wanted">
      <ul className="mb-0">
        {ways
          .filter(({ possible }) => possible)
          .map(({ way, why }) => (
            <li key={way}>
              {way}: {why}
            </li>
          ))}
      </ul>
    </Care>
  );
}

interface HowHomeProps extends FitProps {
  readonly by: By;
  /** The driver of the crib that the working picks. */
  readonly onDriver: (name: string) => void;
}

/** Force, temperature or driver before it is begun: the working of the way, filled in from what was measured. */
function HowHome({ run, step, by, onDriver }: HowHomeProps): ReactElement | null {
  const { job, keep } = useHere();
  const working = workings.describe(FIT_WAYS[by]);
  if (!working) return null;
  const stored = readStored(`${SHOP_HAS}.${by}`);
  const kept = ({ working: id, input, output }: WorkingRun): void => {
    keep({ kind: 'worked', payload: { working: id, input, fit: run.fit.ref }, step: step.ref });
    writeStored(`${SHOP_HAS}.${by}`, JSON.stringify(shopHas(by, input)));
    if (by === 'hand' && typeof output['which'] === 'string') onDriver(output['which']);
  };
  return (
    <WorkingForm
      key={by}
      isPart
      working={working}
      draftKey={`${job.id}.${run.fit.ref}.${by}.${run.measured?.id ?? ''}`}
      preset={{ ...(stored === undefined ? {} : (JSON.parse(stored) as object)), ...presetForFit(working.id, run, BENCH_C) }}
      under={(answer) => (
        <p>
          <Button variant="plain" onClick={() => kept(answer)}>
            {KEEP_WORDS[by]}
          </Button>
        </p>
      )}
    />
  );
}

const KEEP_WORDS: Readonly<Record<By, string>> = {
  press: 'Keep it, and press to it',
  heat: 'Keep it, and warm it so',
  hand: 'Keep it, and take this driver',
};

/** What of a working is the shop's and stays: its press, its drivers. */
function shopHas(by: By, input: Readonly<Record<string, unknown>>): object {
  const { capacity, ram, tubes } = input as { readonly capacity?: number; readonly ram?: number; readonly tubes?: unknown };
  if (by === 'hand') return tubes === undefined ? {} : { tubes };
  return { ...(capacity ? { capacity: `${capacity} N` } : {}), ...(ram ? { ram: `${ram} mm` } : {}) };
}

/** How warm it still is, and how long it can be moved: cooling after Newton, from the moment it leaves the heat. */
function Falling({ worked }: { readonly worked: KeptEntry<'worked'> }): ReactElement | null {
  const [begun, setBegun] = useDraft(`falling.${worked.id}`, '');
  const now = useNow(500);
  const { temperature, grips, left } = (worked.working?.output ?? {}) as Readonly<Record<string, number | undefined>>;
  const bench = Number(worked.working?.input['bench'] ?? BENCH_C);
  if (temperature === undefined || grips === undefined || left === undefined) return null;
  if (begun === '')
    return (
      <Button variant="plain" className="mb-2" onClick={() => setBegun(new Date().toISOString())}>
        It leaves the heat at {formatQuantity(temperature, 'temperature', '°C')}: start
      </Button>
    );
  const { now: warm, rest } = coolingAfter({ temperature, bench, grips, left }, (now - Date.parse(begun)) / 1000);
  return (
    <div className="mb-2" role="timer">
      <b className="fig fs-2">{Math.round(warm)} °C</b>{' '}
      {rest > 0 ? (
        <span>
          slides for <b className="fig fs-4">{Math.ceil(rest)} s</b> more, down to {Math.round(grips)} °C
        </span>
      ) : (
        <span className="v-out">It grips by now. What is not home stays: press it on, or warm it again; no hammer.</span>
      )}{' '}
      <Button variant="quiet" className="p-0" onClick={() => setBegun(undefined)}>
        Begin again
      </Button>
    </div>
  );
}
