import { parseQuantity, formatQuantity, workings, wording } from '@jubb/core';
import { ENDPOINTS, ToolCheckBody, type CheckPoint, type ToolView } from '@jubb/wire';
import { useState, type ReactElement } from 'react';
import { useWatch } from 'react-hook-form';
import Button from 'react-bootstrap/Button';
import { useAskForm } from '../kit/ask-form.ts';
import { Asking } from '../kit/asking.tsx';
import { inDays } from '../kit/days.ts';
import { Field } from '../kit/field.tsx';
import { PaperIn } from '../kit/paper-in.tsx';
import { useSameId } from '../kit/same-id.ts';
import { ask } from '../link/client.ts';
import { refreshTool } from './refresh-tool.ts';

interface CheckTyped {
  points: string;
  against: string;
  certificate: string;
  /** Its PDF, once it is brought in. */
  paper: { readonly id: string; readonly name: string } | null;
  due: string;
  verdict: 'good' | 'out';
}

/** Pairs of shown and true, one to a line; a line that is none is left undefined. */
function pairs(text: string, tool: ToolView): readonly (CheckPoint | undefined)[] {
  return text
    .split('\n')
    .filter((line) => line.trim() !== '')
    .map((line) => {
      const [shown, truth] = line
        .trim()
        .split(/\s*;\s*|\s+(?=[-+\d])/u)
        .map((part) => parseQuantity(part, tool.quantity, 'point', tool.unit));
      return shown?.ok && truth?.ok ? { shown: shown.quantity.base, true: truth.quantity.base } : undefined;
    });
}

/** A check of the tool against something better, with the certificate that came of it. */
export function CheckForm({ tool }: { readonly tool: ToolView }): ReactElement {
  const [due] = useState(() => inDays(tool.everyDays ?? 365));
  const { idOf, isDone } = useSameId();
  const nothing: CheckTyped = { points: '', against: '', certificate: '', paper: null, due, verdict: 'good' };
  const form = useAskForm<CheckTyped, ToolCheckBody>({
    type: ToolCheckBody,
    draft: `check.${tool.id}`,
    initial: nothing,
    toBody: (typed) => ({
      id: idOf(typed),
      verdict: typed.verdict,
      // A line that is no pair has no figure: it is refused by its place.
      points: pairs(typed.points, tool).map((point) => point ?? { shown: Number.NaN, true: Number.NaN }),
      against: typed.against,
      ...(typed.certificate.trim() ? { certificate: typed.certificate.trim() } : {}),
      ...(typed.paper ? { paperId: typed.paper.id } : {}),
      ...(typed.verdict === 'good' && typed.due ? { due: typed.due } : {}),
    }),
    onSend: async (body) => {
      await ask(ENDPOINTS.tools.check, { id: tool.id, body });
      isDone();
      form.begin(nothing);
      await refreshTool();
    },
  });
  const points = pairs(useWatch({ control: form.form.control, name: 'points' }), tool);
  const paper = useWatch({ control: form.form.control, name: 'paper' });
  const wrong = points.indexOf(undefined);
  const judged =
    tool.quantity === 'torque' && points.length > 0 && wrong === -1
      ? workings.run('tool.check', {
          ...(tool.high > 0 ? { largest: tool.high } : {}),
          type: tool.kind === 'beam-wrench' ? 'beam' : 'click',
          points: points.map((point) => ({ set: point!.shown, true: point!.true })),
        })
      : undefined;
  const verdict = judged?.ok ? String(judged.run.output['verdict']) : undefined;
  const keep = (found: CheckTyped['verdict']): void => {
    form.form.setValue('verdict', found);
    void form.keep();
  };
  return (
    <Asking
      of={form}
      className="work"
      keys={
        <div className="keys">
          <Button variant="primary" disabled={form.busy} onClick={() => keep('good')}>
            It is good
          </Button>
          <Button variant="plain" disabled={form.busy} onClick={() => keep('out')}>
            It is out
          </Button>
        </div>
      }
    >
      <h2>Check it</h2>
      <Field
        of="check"
        name="points"
        label={`Shown and true, one pair to a line, in ${tool.unit}`}
        as="textarea"
        className="fig"
        rows={3}
        placeholder={tool.quantity === 'torque' ? '40 39.4' : '25.000 25.001'}
      />
      {wrong === -1 ? null : <div className="v-out">Line {wrong + 1} is no pair of figures</div>}
      {verdict ? (
        <p className={`mb-1 v-${verdict}`}>
          By ISO 6789-1: <b>{verdict}</b>, worst {formatQuantity(Number(judged?.ok ? judged.run.output['worst'] : 0), 'ratio', '%')}
        </p>
      ) : null}
      {judged && !judged.ok ? <div className="v-out">{judged.issues.map(wording).join('; ')}</div> : null}
      <div className="row mt-2">
        <Field of="check" name="against" label="Held against" wrap="col-6 mb-2" maxLength={200} />
        <Field of="check" name="certificate" label="Certificate" wrap="col-6 mb-2" maxLength={80} />
        <Field of="check" name="due" label="Next check" wrap="col-6 mb-2" type="date" />
      </div>
      {paper ? (
        <p className="mb-2">
          With {paper.name}{' '}
          <Button variant="quiet" onClick={() => form.form.setValue('paper', null)}>
            Without it
          </Button>
        </p>
      ) : (
        <PaperIn words="Its certificate as a PDF" onPaper={(brought) => form.form.setValue('paper', brought)} />
      )}
    </Asking>
  );
}
