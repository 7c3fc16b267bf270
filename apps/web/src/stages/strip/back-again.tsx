import { screwWords, type Moved } from '@jubb/book';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { Dialog } from '../../kit/dialog.ts';
import { FigureField, readFigure } from '../../kit/figure-field.tsx';
import { ToolPick, pickTool, rememberTool } from '../../kit/tool-pick.tsx';
import { useUnits } from '../../kit/units.ts';
import { useHere } from '../../job/use-job.ts';

const MOST_SCREWS = 1000;
const MOST_NM = 5000;

/** What was moved goes back whole: its screws counted again, and pulled to what is written down. */
export function BackAgain({ of, onClose }: { readonly of: Moved; readonly onClose: () => void }): ReactElement {
  const { job, keep } = useHere();
  const units = useUnits();
  const [count, setCount] = useState('');
  const [torque, setTorque] = useState('');
  const [toolId, setToolId] = useState<string>();
  const [tried, setTried] = useState(false);
  const size = { quantity: 'torque', base: of.torque ?? 0 } as const;
  const tool = of.torque === undefined ? undefined : pickTool(job.tools, 'torque-wrench', size, toolId);
  const counted = readFigure(count, 'count', '', { least: 1, most: MOST_SCREWS }).base;
  const pulled = readFigure(torque, 'torque', units.symbol('torque'), { least: 0.1, most: MOST_NM }).base;
  const isShort = of.screws !== undefined && counted !== undefined && counted !== of.screws;
  const isWhole = (of.screws === undefined || counted === of.screws) && (of.torque === undefined || pulled !== undefined);
  const put = (): void => {
    setTried(true);
    if (!isWhole) return;
    if (tool) rememberTool(tool);
    keep({
      kind: 'put-back',
      payload: {
        moved: of.entryId,
        ...(of.screws === undefined ? {} : { screws: counted }),
        ...(of.torque === undefined ? {} : { torque: pulled }),
      },
      ...(tool ? { toolId: tool.id } : {}),
    });
    onClose();
  };
  const due = of.torque === undefined ? undefined : units.show(of.torque, 'torque', {});
  return (
    <Dialog show centered animation={false} onHide={onClose} aria-labelledby="back-again" restoreFocus>
      <Dialog.Header closeButton>
        <h2 id="back-again" className="mb-0">
          Back where it was: {of.what}
        </h2>
      </Dialog.Header>
      <Dialog.Body>
        {of.routing ? <p>It runs {of.routing}.</p> : null}
        {of.plug ? <p>Take out what closed it: {of.plug}.</p> : null}
        {of.screws === undefined ? null : (
          <div className="mb-3">
            <FigureField
              label={`Counted back in: ${screwWords(of)}`}
              quantity="count"
              text={count}
              onText={setCount}
              onEnter={put}
              focus
              isDeaf
              tried={tried}
            />
            {isShort ? (
              <p className="v-out mb-0" role="alert">
                {of.screws} came out. Find the {of.screws > (counted ?? 0) ? 'others' : 'place of the others'} first.
              </p>
            ) : null}
          </div>
        )}
        {due === undefined ? null : (
          <>
            <FigureField
              label={`Pulled to, ${due.figure} ${due.unit} is written down`}
              quantity="torque"
              text={torque}
              onText={setTorque}
              onEnter={put}
              least={0.1}
              most={MOST_NM}
              focus={of.screws === undefined}
              tried={tried}
            />
            <ToolPick label="With" tools={job.tools} kind="torque-wrench" chosen={tool} size={size} onChoose={setToolId} />
          </>
        )}
      </Dialog.Body>
      <Dialog.Footer>
        <Button variant="plain" onClick={onClose}>
          Leave it
        </Button>
        <Button variant="primary" onClick={put}>
          It is back
        </Button>
      </Dialog.Footer>
    </Dialog>
  );
}
