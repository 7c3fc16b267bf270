import type { Quantity, Window } from '@jubb/core';
import { mean, workingFor, type EntryKind, type Tool } from '@jubb/contract/job';
import { useState, type ReactElement, type ReactNode } from 'react';
import { LimitStrip, VerdictShape } from '../drawings/limit-strip.tsx';
import { FigureField } from '../kit/figure-field.tsx';
import { ToolPick, pickTool, rememberTool } from '../kit/tool-pick.tsx';
import { useUnits } from '../kit/units.ts';
import { useHere } from '../job/use-job.ts';
import { RecorderLayout } from './layout.tsx';
import { useReadings } from './use-readings.ts';

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
  readonly payload: (readings: readonly number[]) => object;
  readonly onKeep: (payload: object, tool: Tool | undefined) => void;
  readonly source?: ReactNode;
  readonly intro?: ReactNode;
  readonly drawing?: ReactNode;
}

/** Repeats with one tool, the verdict as they come, then kept together. */
export function Measure(props: MeasureProps): ReactElement {
  const { name, quantity, window, toolKind, repeats, kind } = props;
  const { job, sheet } = useHere();
  const units = useUnits();
  const [toolId, setToolId] = useState<string>();
  const [tried, setTried] = useState(false);
  const { least, most } = props;
  const readings = useReadings(`${job.id}.${props.draftKey}`, quantity, { least, most });
  const size = window.from ?? window.to;
  const tool = pickTool(job.tools, toolKind, size, toolId);
  const payload = props.payload(readings.kept);
  const working = readings.kept.length > 0 ? workingFor(kind, payload, sheet, tool) : null;
  const judged = working?.id === 'measure.verdict' ? working.output : undefined;
  const enough = readings.kept.length >= repeats;
  const take = (): void => setTried(!readings.take());
  const keep = (): void => {
    if (tool) rememberTool(tool);
    props.onKeep(payload, tool);
    readings.clear();
  };
  const shown = readings.kept.length > 0 ? units.show(mean(readings.kept), quantity, window) : undefined;
  const primary = enough
    ? { label: 'Keep', run: keep, disabled: tool === undefined }
    : { label: `Take reading ${readings.kept.length + 1} of ${repeats}`, run: take, disabled: readings.text.trim() === '' };
  return (
    <RecorderLayout
      number={shown && { figure: shown.figure, unit: `${shown.unit} mean` }}
      primary={primary}
      others={[
        { label: 'One more', key: 'm', run: take, disabled: !enough || readings.text.trim() === '' },
        { label: 'Drop the last', key: 'd', run: readings.dropLast, disabled: readings.kept.length === 0 },
      ]}
      drawing={props.drawing}
    >
      {props.intro}
      <div className="d-flex flex-wrap gap-4 align-items-start">
        <FigureField
          label={enough ? 'Another reading' : `Reading ${readings.kept.length + 1} of ${repeats}`}
          quantity={quantity}
          text={readings.text}
          onText={readings.setText}
          onEnter={() => (readings.text.trim() === '' && enough && tool ? keep() : take())}
          least={least}
          most={most}
          tried={tried}
          focus
        />
        <ToolPick
          label="With"
          tools={job.tools.filter((candidate) => candidate.kind === toolKind)}
          chosen={tool}
          size={size}
          onChoose={setToolId}
        />
      </div>
      {readings.kept.length > 0 ? (
        <ul className="chips" aria-label="Readings so far">
          {readings.kept.map((reading, index) => (
            <li key={index}>{units.text(reading, quantity, window)}</li>
          ))}
        </ul>
      ) : null}
      <div className="mt-3" style={{ maxWidth: 480 }}>
        <LimitStrip
          name={name}
          readings={readings.kept}
          from={window.from}
          to={window.to}
          guard={judged ? Number(judged['guard']) : undefined}
          unit="mm"
        />
        {judged ? (
          <p className="mb-0 mt-1" aria-live="polite">
            <b className={`fig fs-4 v-${String(judged['verdict'])}`}>
              <VerdictShape verdict={String(judged['verdict'])} /> {String(judged['verdict'])}
            </b>{' '}
            <span className="soft">
              {String(judged['settle'])} u = {units.text(Number(judged['u']), quantity)}
            </span>
          </p>
        ) : null}
        {props.source}
      </div>
    </RecorderLayout>
  );
}
