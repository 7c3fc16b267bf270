import { formatQuantity } from '@jubb/core';
import { amountQuantity, find, partName, windowOf, withoutSide, type Fluid } from '@jubb/sheet';
import { useState, type ReactElement } from 'react';
import { SealSketch } from '../../drawings/look.tsx';
import { FigureField, readFigure } from '../../kit/figure-field.tsx';
import { Trust } from '../../kit/pieces.tsx';
import { LineField } from '../../kit/line-field.tsx';
import { useDraft } from '../../kit/prefs.ts';
import { pickTool } from '../../kit/tool-pick.tsx';
import { useHere } from '../../job/use-job.ts';
import { RecorderLayout, type RecorderProps } from '../../job/recorder/layout.tsx';
import { useWorkedBefore } from '../measure/earlier.tsx';
import { Measure } from '../measure/measure.tsx';
import { amountAsked, beforeSeal, sealDriver } from '@jubb/book';
import { SealActs, SealSightRecorder } from '../../job/looks/seal-sight.tsx';

export function FluidRecorder({ step }: RecorderProps): ReactElement | null {
  const { job, sheet, keep } = useHere();
  const fluid = find(sheet.fluids, step.record.fluid);
  const [text, setText] = useDraft(`${job.id}.${step.ref}`, '');
  const [tried, setTried] = useState(false);
  if (!fluid) return null;
  if (!fluid.amount)
    return (
      <FilledUntil
        fluid={fluid}
        onFull={() => keep({ kind: 'fluid', payload: { fluid: fluid.ref, amount: 0, unit: 'L' }, step: step.ref })}
      />
    );
  const quantity = amountQuantity(fluid.amount.figure);
  const isMass = quantity === 'mass';
  const unit = isMass ? 'g' : 'L';
  const { wanted, from, to, tolerance } = amountAsked(fluid)!;
  const read = readFigure(text, quantity, unit, { least: 1e-4, most: wanted * 20 });
  const tool = pickTool(job.tools, 'scale', undefined, undefined);
  const off = read.base !== undefined && (read.base < from || read.base > to);
  const fill = (): void => {
    setTried(true);
    if (read.base === undefined) return;
    keep({
      kind: 'fluid',
      payload: { fluid: fluid.ref, amount: read.base, unit, ...(off ? { sure: true } : {}) },
      step: step.ref,
      ...(isMass && tool ? { toolId: tool.id } : {}),
    });
    setText(undefined);
  };
  const [figure = '', symbol = ''] = fluid.amount.figure.split(' ');
  return (
    <RecorderLayout
      number={{ figure, unit: symbol, under: <Trust of={fluid.amount} documents={sheet.documents} /> }}
      say={
        <>
          {fluid.name}, {fluid.grade}. {fluid.rule}
        </>
      }
      primary={{ label: off ? 'Keep it all the same' : 'It is in', run: fill, disabled: text.trim() === '' }}
    >
      <FigureField
        label={`Weighed in${tool ? `, ${tool.tag}` : ''}`}
        quantity={quantity}
        unit={unit}
        text={text}
        onText={setText}
        onEnter={fill}
        least={1e-4}
        most={wanted * 20}
        tried={tried}
        focus
      />
      {off ? <p className="v-unsure mb-0">More than {tolerance} off the sheet. It can be kept, and shows in the report.</p> : null}
    </RecorderLayout>
  );
}

/** A fluid that has no amount: it is filled until it shows. */
function FilledUntil({ fluid, onFull }: { readonly fluid: Fluid; readonly onFull: () => void }): ReactElement {
  return (
    <RecorderLayout
      say={
        <>
          {fluid.name}, {fluid.grade}, {fluid.fill}. {fluid.rule}
        </>
      }
      primary={{ label: 'It shows, it is full', run: onFull }}
    />
  );
}

/** Kinds that are laid on a face, dry, and not pressed into a place. */
const LAID: ReadonlySet<string> = new Set(['sealant', 'gasket']);

/** Direction, then lubricant, then depth: one thing asked at a time. */
export function SealRecorder({ step }: RecorderProps): ReactElement | null {
  const { job, sheet, state, keep } = useHere();
  const seal = find(sheet.seals, step.record.seal);
  const [seen, setSeen] = useDraft(`${job.id}.${step.ref}.seen`, 0);
  const [typed, setTyped] = useDraft<string | null>(`${job.id}.${step.ref}.driver`, null);
  const before = useWorkedBefore()?.seals.find((one) => one.seal === withoutSide(step.record.seal ?? ''))?.driver;
  if (!seal) return null;
  const fitting = sealDriver(seal, job.tools);
  const driver = (typed ?? before ?? fitting?.which ?? '').trim();
  const driven = driver === '' || !fitting ? {} : { driver };
  const over = (): void => {
    setSeen(undefined);
    setTyped(undefined);
  };
  const [first] = beforeSeal(seal, state.live);
  if (first) return <SealSightRecorder key={first.sight} step={step} due={first} />;
  const protect = seal.protect.length > 0 ? <p className="soft mb-0">{seal.protect.join('. ')}.</p> : null;
  if (seen === 0) {
    return (
      <RecorderLayout say={seal.direction} primary={{ label: 'It lies that way', run: () => setSeen(1) }}>
        <p className="mb-1">
          {partName(sheet, seal.part)}, {seal.material}
        </p>
        {seal.picture ? <SealSketch picture={seal.picture} /> : null}
        {protect}
        <SealActs seal={seal} now="way" />
      </RecorderLayout>
    );
  }
  if (seen === 1)
    return (
      <RecorderLayout
        say={seal.lubricant}
        primary={{
          label: LAID.has(seal.kind) ? 'Laid, all round' : 'Greased, in and square',
          run: () => {
            if (seal.depth) return setSeen(2);
            keep({
              kind: 'seal-fitted',
              payload: { seal: seal.ref, directionSeen: true, lubricated: true, depths: [], unit: 'mm', ...driven },
              step: step.ref,
            });
            over();
          },
        }}
      >
        {fitting ? (
          <LineField
            label={`Driver, at most ${formatQuantity(fitting.outsideMost, 'length')} across`}
            longest={100}
            placeholder={fitting.which ?? 'none of the crib fits: turn one'}
            text={typed ?? before ?? fitting.which ?? ''}
            onText={setTyped}
          />
        ) : null}
        {before !== undefined && typed === null ? <p className="soft mb-0">As the last time.</p> : null}
        {protect}
        <SealActs seal={seal} now="in" />
      </RecorderLayout>
    );
  if (!seal.depth) return null;
  return (
    <Measure
      draftKey={`${step.ref}.depth`}
      name={`Depth below the ${seal.depthFrom ?? 'face'}`}
      quantity="length"
      window={windowOf(seal.depth, 'length')}
      toolKind={seal.tool}
      repeats={3}
      least={-5}
      most={50}
      kind="seal-fitted"
      payload={(depths, unit) => ({ seal: seal.ref, directionSeen: true, lubricated: true, depths, unit, ...driven })}
      onKeep={(payload, tool) => {
        keep({ kind: 'seal-fitted', payload, step: step.ref, ...(tool ? { toolId: tool.id } : {}) });
        over();
      }}
      intro={<p>Depth below the {seal.depthFrom ?? 'face of the bore'}, at three places round the rim.</p>}
      source={<Trust of={seal.depth} documents={sheet.documents} />}
    />
  );
}
