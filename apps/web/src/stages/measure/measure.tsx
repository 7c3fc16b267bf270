import { at20, gridFigure, gridPlaces, gridWorking, mean, spreadOf, workingFor, type EntryKind } from '@jubb/book';
import { toolRefusal, tooCoarse, type Limit, type Tool, type ToolSize } from '@jubb/sheet';
import { contradiction, formatQuantity, unitBySymbol, workings, type Contradiction, type Quantity, type Window } from '@jubb/core';
import { shopToday } from '../../kit/days.ts';
import { useState, type ReactElement, type ReactNode } from 'react';
import { HowSketch } from '../../drawings/how.tsx';
import { LimitStrip, VerdictShape } from '../../drawings/limit-strip.tsx';
import { FigureField } from '../../kit/figure-field.tsx';
import { ToolPick, pickTool, rememberTool } from '../../kit/tool-pick.tsx';
import { useDraft } from '../../kit/prefs.ts';
import { useUnits } from '../../kit/units.ts';
import { useHere } from '../../job/use-job.ts';
import { Doubted } from './doubted.tsx';
import { BEFORE_EMPTY, BeforeReading, beforeOf, type BeforeTyped } from './before-reading.tsx';
import { Places, placeWords } from './places.tsx';
import { ToolFitWords } from './tool-fit.tsx';
import { useEarlier } from './use-earlier.ts';
import { RecorderLayout, type Act } from '../../job/recorder/layout.tsx';
import { useReadings } from '../../job/recorder/use-readings.ts';

interface MeasureProps {
  readonly draftKey: string;
  readonly name: string;
  readonly quantity: Quantity;
  readonly window: Window;
  readonly toolKind: string | undefined;
  readonly repeats: number;
  readonly least: number;
  readonly most: number;
  readonly kind: EntryKind;
  readonly payload: (readings: readonly number[], unit: string) => object;
  readonly onKeep: (payload: object, tool: Tool | undefined) => void;
  readonly source?: ReactNode;
  /** What of the sheet it is, where it is a limit: its places, and how fine a tool it takes. */
  readonly limit?: Limit;
  readonly intro?: ReactNode;
  readonly wide?: ReactNode;
  /** What else can be done than read, before the first reading. */
  readonly others?: readonly Act[];
}

/** Repeats with one tool, the verdict as they come, then kept together. */
export function Measure(props: MeasureProps): ReactElement {
  const { name, quantity, window, toolKind, repeats, kind } = props;
  const { job, sheet } = useHere();
  const units = useUnits();
  const [toolId, setToolId] = useState<string>();
  const [tried, setTried] = useState(false);
  const [doubt, setDoubt] = useState<Contradiction>();
  const { least, most } = props;
  const readings = useReadings(`${job.id}.${props.draftKey}`, quantity, { least, most });
  const base = window.from ?? window.to;
  const size = base === undefined ? undefined : { quantity, base };
  const tool = pickTool(job.tools, toolKind, size, toolId);
  // Said before the first reading, not when all of them came out unsure.
  const coarse =
    toolKind === undefined || tool === undefined ? undefined : tooCoarse({ window, quantity, kind: toolKind, repeats }, job.tools);
  const [beforeTyped, setBefore] = useDraft<BeforeTyped>(`${job.id}.${props.draftKey}.before`, BEFORE_EMPTY);
  const { limit } = props;
  const before = limit ? beforeOf(beforeTyped) : {};
  const payload = { ...props.payload(readings.kept, readings.unit), ...before };
  const working = readings.kept.length > 0 ? workingFor(kind, payload, sheet, tool) : null;
  const judged = working?.id === 'measure.verdict' ? working.output : undefined;
  const enough = readings.kept.length >= repeats;
  const earlier = useEarlier(job.id, limit);
  const isGridded = limit !== undefined && gridPlaces(limit) !== undefined;
  const takeAs = (instead?: number): void => {
    setDoubt(undefined);
    setTried(!readings.take(instead));
  };
  const take = (): void => {
    const found =
      readings.typed === undefined
        ? undefined
        : contradiction(readings.typed, {
            // Places of a run-out differ by what is looked for.
            others: limit?.grid?.of === 'span' ? [] : readings.kept,
            ...(limit?.grid?.of === 'span' ? {} : window),
            spread: spreadOf(tool),
            isLength: quantity === 'length',
          });
    setDoubt(found);
    if (!found) takeAs();
  };
  const keep = (): void => {
    if (tool) rememberTool(tool);
    props.onKeep(payload, tool);
    readings.clear();
    setBefore(undefined);
  };
  const cold = at20({ readings: readings.kept, ...before }).readings;
  const figure = isGridded && enough && limit ? gridFigure(limit, cold, window) : mean(cold);
  const shown = readings.kept.length > 0 ? units.show(figure, quantity, window) : undefined;
  const primary = enough
    ? { label: 'Keep', run: keep, disabled: tool === undefined }
    : {
        label: `Take reading ${readings.kept.length + 1} of ${repeats}`,
        run: take,
        disabled: readings.text.trim() === '' || doubt !== undefined,
      };
  const typedWords = readings.typed === undefined ? '' : units.reading(readings.typed, quantity);
  return (
    <RecorderLayout
      number={shown && { figure: shown.figure, unit: `${shown.unit} ${isGridded && enough ? 'judged' : 'mean'}` }}
      primary={primary}
      others={[
        { label: 'One more', key: 'a', run: take, disabled: isGridded || !enough || readings.text.trim() === '' },
        { label: 'Drop the last', key: 'd', run: readings.dropLast, disabled: readings.kept.length === 0 },
        ...(readings.kept.length === 0 ? (props.others ?? []) : []),
      ]}
      drawing={
        <div className="judged">
          <LimitStrip
            name={name}
            readings={isGridded && enough && limit ? [figure] : cold}
            before={earlier.map(({ figure }) => figure)}
            from={window.from}
            to={window.to}
            guard={judged ? Number(judged['guard']) : undefined}
            unit={unitBySymbol(quantity, undefined).symbol}
          />
          {judged ? (
            <p className="mb-1 mt-1" aria-live="polite">
              <b className={`fig fs-4 v-${String(judged['verdict'])}`}>
                <VerdictShape verdict={String(judged['verdict'])} /> {String(judged['verdict'])}
              </b>{' '}
              <span className="soft">
                {String(judged['settle'])} u = {finely(Number(judged['u']), quantity)}
              </span>
            </p>
          ) : null}
          {limit && !isGridded ? <HowSketch limit={limit} /> : null}
          {props.source}
        </div>
      }
      wide={props.wide}
    >
      {props.intro}
      <div className="d-flex flex-wrap gap-4 align-items-start">
        <FigureField
          label={
            enough
              ? 'Another reading'
              : `Reading ${readings.kept.length + 1} of ${repeats}${isGridded && limit ? `, ${placeWords(limit, readings.kept.length)}` : ''}`
          }
          quantity={quantity}
          text={readings.text}
          onText={(text) => {
            setDoubt(undefined);
            readings.setText(text);
          }}
          onEnter={() => (readings.text.trim() === '' && enough && tool ? keep() : take())}
          least={least}
          most={most}
          tried={tried}
          focus
          against={(line) => {
            const sender = job.tools.find(({ id }) => id === line.toolId);
            const why = sender && otherTool(sender, toolKind, size);
            if (sender && !why) setToolId(sender.id);
            return why;
          }}
        />
        <ToolPick label="With" tools={job.tools} kind={toolKind} quantity={quantity} chosen={tool} size={size} onChoose={setToolId} />
      </div>
      {coarse === undefined ? null : <p className="v-unsure mb-1">Before you read: {coarse}.</p>}
      {limit && tool ? (
        <p className="mb-1">
          <ToolFitWords limit={limit} tool={tool} tools={job.tools} />
        </p>
      ) : null}
      {limit ? (
        <BeforeReading
          toolKind={limit.tool}
          quantity={quantity}
          typed={beforeTyped}
          readings={readings.typed === undefined ? readings.kept : [readings.typed]}
          onTyped={setBefore}
        />
      ) : null}
      {doubt ? (
        <Doubted
          doubt={doubt}
          typed={typedWords}
          meant={doubt.meant === undefined ? undefined : units.reading(doubt.meant, quantity)}
          onMeant={() => takeAs(doubt.meant)}
          onTyped={() => takeAs()}
          onAgain={() => {
            setDoubt(undefined);
            readings.setText('');
          }}
        />
      ) : null}
      {isGridded && limit ? (
        <Places limit={limit} readings={readings.kept} write={(reading) => units.show(reading, quantity).figure} />
      ) : null}
      {isGridded && limit && enough ? <GridWords limit={limit} readings={readings.kept} /> : null}
      {readings.kept.length > 0 ? (
        <ul className="chips" aria-label="Readings so far">
          {readings.kept.map((reading, index) => (
            <li key={index}>{units.reading(reading, quantity)}</li>
          ))}
        </ul>
      ) : null}
    </RecorderLayout>
  );
}

/** What a whole grid tells beyond its verdict. */
function GridWords({ limit, readings }: { readonly limit: Limit; readonly readings: readonly number[] }): ReactElement | null {
  const worked = gridWorking(limit, readings);
  const result = worked && workings.run(worked.id, worked.input);
  if (!result?.ok) return null;
  const { outOfRound, taper, shape, what, highAt } = result.run.output as Record<string, number | string | undefined>;
  const words =
    outOfRound === undefined
      ? `${String(what)} High spot at ${formatQuantity(Number(highAt), 'angle')}.`
      : `Out of round ${formatQuantity(Number(outOfRound), 'length')}, taper ${formatQuantity(Number(taper), 'length')}. ${String(shape)}`;
  return <p className="mb-1">{words}</p>;
}

/** Why a reading of a tool is not one of what is asked. */
function otherTool(tool: Tool, kind: string | undefined, size: ToolSize | undefined): string | undefined {
  if (kind !== undefined && tool.kind !== kind)
    return `${tool.tag} ${tool.name} sent it; here a ${kind?.replaceAll('-', ' ') ?? 'tool'} is asked`;
  const refusal = toolRefusal(tool, size, shopToday());
  return refusal && `Not taken: ${tool.tag} ${refusal}`;
}

/** An uncertainty: parts of a hundredth of a millimetre are read in micrometres. */
function finely(u: number, quantity: Quantity): string {
  return formatQuantity(u, quantity, quantity === 'length' ? 'µm' : undefined);
}
