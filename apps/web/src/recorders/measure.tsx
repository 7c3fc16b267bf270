import { formatQuantity, unitBySymbol, type Quantity, type Window } from '@jubb/core';
import { mean, toolRefusal, workingFor, type EntryKind, type Tool, type ToolSize } from '@jubb/contract/job';
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
  readonly payload: (readings: readonly number[], unit: string) => object;
  readonly onKeep: (payload: object, tool: Tool | undefined) => void;
  readonly source?: ReactNode;
  readonly intro?: ReactNode;
  readonly wide?: ReactNode;
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
  const base = window.from ?? window.to;
  const size = base === undefined ? undefined : { quantity, base };
  const tool = pickTool(job.tools, toolKind, size, toolId);
  const payload = props.payload(readings.kept, readings.unit);
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
        { label: 'One more', key: 'a', run: take, disabled: !enough || readings.text.trim() === '' },
        { label: 'Drop the last', key: 'd', run: readings.dropLast, disabled: readings.kept.length === 0 },
      ]}
      drawing={
        <div className="judged">
          <LimitStrip
            name={name}
            readings={readings.kept}
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
          {props.source}
        </div>
      }
      wide={props.wide}
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
          against={(line) => {
            const sender = job.tools.find(({ id }) => id === line.toolId);
            const why = sender && otherTool(sender, toolKind, size);
            if (sender && !why) setToolId(sender.id);
            return why;
          }}
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
            <li key={index}>{units.reading(reading, quantity)}</li>
          ))}
        </ul>
      ) : null}
    </RecorderLayout>
  );
}

/** Why a reading of a tool is not one of what is asked. */
function otherTool(tool: Tool, kind: string | undefined, size: ToolSize | undefined): string | undefined {
  if (tool.kind !== kind) return `${tool.tag} ${tool.name} sent it; here a ${kind?.replaceAll('-', ' ') ?? 'tool'} is asked`;
  const refusal = toolRefusal(tool, size, new Date().toISOString().slice(0, 10));
  return refusal && `Not taken: ${tool.tag} ${refusal}`;
}

/** An uncertainty: parts of a hundredth of a millimetre are read in micrometres. */
function finely(u: number, quantity: Quantity): string {
  return formatQuantity(u, quantity, quantity === 'length' ? 'µm' : undefined);
}
