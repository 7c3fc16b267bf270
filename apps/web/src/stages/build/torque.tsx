import {
  jointPoints,
  middleAngle,
  notIn,
  pullLook,
  stageWords,
  trialRun,
  wrenchSetting,
  type JointRun,
  type PlannedPull,
} from '@jubb/book';
import { baseOf, jointTorque, type Step } from '@jubb/sheet';
import type { LiveLine } from '@jubb/wire';
import { formatQuantity, type Sight } from '@jubb/core';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import FormLabel from 'react-bootstrap/FormLabel';
import FormSelect from 'react-bootstrap/FormSelect';
import { Flats, flatsWords } from '../../drawings/flats.tsx';
import { JointPlate } from '../../drawings/joint-plate.tsx';
import { FigureField, readFigure } from '../../kit/figure-field.tsx';
import { Care, Trust } from '../../kit/pieces.tsx';
import { useDraft } from '../../kit/prefs.ts';
import { ToolPick, pickTool, rememberTool } from '../../kit/tool-pick.tsx';
import { useUnits } from '../../kit/units.ts';
import { WrenchSends } from './wrench-sends.tsx';
import { useHere } from '../../job/use-job.ts';
import { dayWords } from '../../kit/days.ts';
import { AskPull } from './ask-pull.tsx';
import { EarlierPullWords, useEarlierPulls } from '../measure/earlier.tsx';
import { RecorderLayout } from '../../job/recorder/layout.tsx';
import { useTrial } from '../../job/recorder/use-trial.ts';
import { Locker } from './locker.tsx';

const NO_ADAPTER = { id: '', angle: '0' };

/** One pull after the other: order, pass, wrench setting, each kept. */
export function TorqueRecorder({ step }: { readonly step: Step }): ReactElement | null {
  const { sheet, state } = useHere();
  const [isTrial, setTrial] = useTrial(step);
  const run = state.joints.find((candidate) => candidate.joint.ref === step.record.joint);
  if (!run) return null;
  if (!isTrial) return <Pulls key={run.joint.ref} run={run} step={step} />;
  return (
    <>
      <Care title="A trial">
        Old fasteners, no locker: it is kept as a trial, uses nothing up and proves nothing.{' '}
        <Button variant="plain" onClick={() => setTrial(false)}>
          End of the trial
        </Button>
      </Care>
      <Pulls key={`${run.joint.ref} trial`} run={trialRun(run.joint, state.live, sheet.settings)} step={step} isTrial />
    </>
  );
}

interface PullsProps {
  readonly run: JointRun;
  readonly step: Step;
  readonly isTrial?: boolean;
}

function Pulls({ run, step, isTrial = false }: PullsProps): ReactElement | null {
  const { job, sheet, keep } = useHere();
  const units = useUnits();
  const earlier = useEarlierPulls(run);
  const [wrenchId, setWrenchId] = useState<string>();
  const [asking, setAsking] = useState(false);
  const [choosing, setChoosing] = useState(false);
  const [adapter, setAdapter] = useDraft(`${job.id}.adapter`, NO_ADAPTER);
  const plate = <RunPlate run={run} />;
  if (!run.next) return <RecorderLayout say={`All ${run.total} pulls are in.`} drawing={plate} />;

  const { next, joint } = run;
  const pass = run.passes.find((candidate) => candidate.pass === next.pass);
  const trial = isTrial ? { trial: true as const } : {};
  if (next.torqueNm === 0) return <ByHand run={run} step={step} plate={plate} isTrial={isTrial} />;
  const wrench = pickTool(job.tools, 'torque-wrench', { quantity: 'torque', base: next.torqueNm }, wrenchId);
  const fitted = job.tools.find((tool) => tool.id === adapter.id);
  const angle = readFigure(adapter.angle, 'angle', '°', { least: 0, most: 180 });
  const arm = {
    torque: next.torqueNm,
    wrenchLength: wrench?.length ?? 450,
    adapterLength: fitted?.length ?? 0,
    adapterAngle: fitted ? (angle.base ?? 0) : 0,
  };
  const setting = wrenchSetting(arm)?.output['setting'];
  const set = typeof setting === 'number' ? setting : undefined;
  const pull = ({ result = 'clicked', place = next.place, note, line, sight }: Pulled): void => {
    // Trouble is kept also where no wrench is at hand.
    if (!wrench && result !== 'trouble') return;
    if (wrench) rememberTool(wrench);
    keep({
      kind: 'pull',
      payload: {
        joint: joint.ref,
        pass: next.pass,
        place,
        result,
        ...arm,
        ...(fitted ? { adapterId: fitted.id } : {}),
        ...(note ? { note } : {}),
        ...trial,
        // At the fastener, whatever is on the wrench.
        ...(line && line.base !== null && set ? { peak: (line.base * next.torqueNm) / set } : {}),
        ...(line?.angle === undefined ? {} : { angle: line.angle }),
        ...(sight ? { sight } : {}),
      },
      step: step.ref,
      ...(wrench ? { toolId: wrench.id } : {}),
    });
  };
  const byHand = (note: string): void =>
    keep({
      kind: 'pull',
      payload: { joint: joint.ref, pass: next.pass, place: next.place, result: 'clicked', torque: 0, ...NO_WRENCH, note, ...trial },
      step: step.ref,
    });
  const last = run.pulls.at(-1);
  const look = last && pullLook(run, last);
  const { figure, unit, other } = units.show(next.torqueNm, 'torque');
  const full = jointTorque(joint)?.torqueNm;
  const origin = pass?.stage?.torque ?? joint.torque;
  const wrenchAt = set === undefined ? '…' : units.show(set, 'torque').figure;
  const cannot = wrench === undefined || set === undefined || (fitted !== undefined && angle.base === undefined);
  return (
    <>
      <RecorderLayout
        number={{
          figure,
          unit,
          under: (
            <>
              {other ? <b className="fig fs-4 me-2">{other}</b> : null}
              {origin ? (
                <Trust
                  of={origin}
                  documents={sheet.documents}
                  also={[joint.condition, ...(full === undefined ? [] : [`full ${units.text(full, 'torque')}`])]}
                />
              ) : null}
            </>
          ),
        }}
        say={
          <>
            Set the wrench to <b className="fig">{set === undefined ? '…' : units.text(set, 'torque')}</b>
            {earlier ? <EarlierPullWords of={earlier} /> : null}
            {wrench ? (
              <span className="soft d-block">
                {[
                  `wrench ${wrench.tag}`,
                  fitted ? `${fitted.name}, ${fitted.length ?? 0} mm at ${adapter.angle}°` : 'socket in line',
                  `±${formatQuantity(jointShare(joint), 'ratio', '%')}`,
                  wrench.calibrationDue && `good to ${dayWords(wrench.calibrationDue)}`,
                ]
                  .filter(Boolean)
                  .join(', ')}
              </span>
            ) : null}
          </>
        }
        primary={
          pass?.check
            ? { label: 'Clicked, did not turn', run: () => pull({}), disabled: cannot }
            : { label: `Pulled ${wrenchAt}`, run: () => pull({}), disabled: cannot }
        }
        others={[
          ...(pass?.check ? [{ label: 'It turned', key: 't' as const, run: () => pull({ result: 'turned' }), disabled: cannot }] : []),
          { label: 'Wrench', key: 'w', run: () => setChoosing(!choosing) },
          { label: 'Trouble', key: 'x', run: () => setAsking(true) },
        ]}
        drawing={plate}
      >
        <NotAllIn joint={joint} />
        {joint.hand === 'left' ? (
          <Care title="Left-hand thread">
            It tightens counter-clockwise. Turn the ratchet over, and see that the wrench measures that way: many click wrenches do not.
          </Care>
        ) : null}
        {run.done === 0 ? (
          <p className="soft mb-1">A power tool may run it down until it touches; the torque is the wrench’s alone.</p>
        ) : null}
        <Locker joint={joint} step={step} />
        <WrenchSends
          wrench={wrench}
          number={run.numbers[next.place]}
          wanted={
            set === undefined
              ? undefined
              : {
                  torque: set,
                  share: jointShare(joint),
                  middle: middleAngle(run, next.pass, next.place) ?? earlier?.angle?.median,
                  isCheck: pass?.check ?? false,
                }
          }
          onPull={(line, sight) => pull({ line, ...(sight ? { sight } : {}) })}
          onTrouble={(note, line, sight) => pull({ result: 'trouble', note, line, sight })}
        />
        {look && last ? <Care title={`Number ${run.numbers[last.payload.place] ?? ''} ${look.what}`}>{look.todo}</Care> : null}
        {choosing || cannot ? (
          <div className="d-flex flex-wrap gap-3">
            <ToolPick
              label="Wrench"
              tools={job.tools}
              kind="torque-wrench"
              chosen={wrench}
              size={{ quantity: 'torque', base: next.torqueNm }}
              onChoose={setWrenchId}
            />
            <div>
              <FormLabel htmlFor="adapter">On it</FormLabel>
              <FormSelect id="adapter" value={adapter.id} onChange={(event) => setAdapter({ ...adapter, id: event.target.value })}>
                <option value="">socket, in line</option>
                {job.tools
                  .filter((tool) => tool.kind === 'crowfoot')
                  .map((tool) => (
                    <option key={tool.id} value={tool.id}>
                      {tool.tag} {tool.name}, {tool.length} mm
                    </option>
                  ))}
              </FormSelect>
            </div>
            {fitted ? (
              <FigureField
                label="Its angle"
                quantity="angle"
                unit="°"
                text={adapter.angle}
                onText={(text) => setAdapter({ ...adapter, angle: text })}
                least={0}
                most={180}
              />
            ) : null}
          </div>
        ) : null}
        {wrench ? null : (
          <p className="v-out mb-0 mt-2">
            No wrench of the crib reaches this torque in calibration. Borrow one, have one checked, or say why it goes by hand (X).
          </p>
        )}
      </RecorderLayout>
      {asking ? (
        <AskPull
          run={run}
          hasWrench={!cannot}
          onClose={() => setAsking(false)}
          onDone={({ what, note = '', number }) => {
            setAsking(false);
            if (what === 'hand') byHand(note);
            else if (what === 'other') pull({ place: run.numbers.indexOf(Number(number)) });
            else pull({ result: 'trouble', note });
          }}
        />
      ) : null}
    </>
  );
}

/** Where the build list is ticked: fasteners of the joint that are not in yet. */
function NotAllIn({ joint: { ref, part } }: Pick<JointRun, 'joint'>): ReactElement | null {
  const { state } = useHere();
  const missing = notIn(state.build).filter((line) => (line.joint ?? ref) === ref && line.part === part);
  if (missing.length === 0) return null;
  return (
    <Care title="Not in yet">
      {missing.map(({ entryId, name, count, inNow, place }) => (
        <div key={entryId}>
          By the build list: {count - inNow} × {name}
          {place ? `, at ${place}` : ''}.
        </div>
      ))}
    </Care>
  );
}

interface Pulled {
  readonly result?: 'clicked' | 'turned' | 'trouble';
  /** Where it was another one than the one that was due. */
  readonly place?: number;
  readonly note?: string | undefined;
  readonly line?: LiveLine;
  readonly sight?: Sight;
}

function jointShare(joint: JointRun['joint']): number {
  const torque = jointTorque(joint);
  return torque ? torque.to / torque.torqueNm - 1 : 0;
}

/** A round that no wrench measures: an angle, a snug by hand, a face that comes flush. */
function ByHand({ run, step, plate, isTrial }: Required<PullsProps> & { readonly plate: ReactElement }): ReactElement | null {
  const { sheet, keep } = useHere();
  const { joint, next, passes } = run;
  if (!next) return null;
  const stage = passes.find(({ pass }) => pass === next.pass)?.stage;
  const angle = stage?.angle && baseOf(stage.angle.figure, 'angle');
  const done = (): void =>
    keep({
      kind: 'pull',
      payload: {
        joint: joint.ref,
        pass: next.pass,
        place: next.place,
        result: 'clicked',
        torque: 0,
        ...NO_WRENCH,
        ...(isTrial ? { trial: true as const } : {}),
      },
      step: step.ref,
    });
  return (
    <RecorderLayout
      number={
        stage?.angle && {
          figure: stage.angle.figure,
          unit: '',
          under: (
            <div className="flats">
              <Flats angle={angle ?? 0} turn={joint.hand === 'left' ? -1 : 1} />
              <Trust of={stage.angle} documents={sheet.documents} />
            </div>
          ),
        }
      }
      say={
        angle === undefined
          ? `${stageWords(stage)}. Mark the head and its seat with paint first, so that a turn shows.`
          : `Turn on by ${flatsWords(angle)}. Paint a mark over the head and its seat first: the head’s goes on, the seat’s stays.`
      }
      primary={{ label: stage?.angle ? `Turned ${stage.angle.figure}` : 'It is so', run: done }}
      drawing={plate}
    >
      {joint.hand === 'left' ? <Care title="Left-hand thread">It tightens counter-clockwise.</Care> : null}
    </RecorderLayout>
  );
}

/** A pull by hand has no arm; the lengths stand for a wrench that changes nothing. */
const NO_WRENCH = { wrenchLength: 450, adapterLength: 0, adapterAngle: 0 };

/** "Wheel nuts, pass 3 of 4. Next is number 5." */
export function runTitle(run: JointRun): string {
  const { next } = run;
  if (!next) return `${run.joint.name}: all pulls are in`;
  return `${run.joint.name}, pass ${next.pass} of ${run.passes.length}${run.passes[next.pass - 1]?.check ? ', once round' : ''}. Next is number ${run.numbers[next.place] ?? ''}.`;
}

function RunPlate({ run }: { readonly run: JointRun }): ReactElement {
  const pass: PlannedPull['pass'] = run.next?.pass ?? run.passes.length;
  const inPass = run.pulls.filter((pull) => pull.payload.pass === pass);
  return (
    <JointPlate
      name={run.joint.name}
      round={run.joint.pattern.layout === 'circle'}
      points={jointPoints(run.joint)}
      numbers={run.numbers}
      done={new Set(inPass.filter((pull) => pull.payload.result !== 'trouble').map((pull) => pull.payload.place))}
      next={run.next?.place}
      last={inPass.at(-1)?.payload.place}
      trouble={new Set(inPass.filter((pull) => pull.payload.result === 'trouble').map((pull) => pull.payload.place))}
      centre={String(run.done)}
      under={`of ${run.total} pulls`}
    />
  );
}
