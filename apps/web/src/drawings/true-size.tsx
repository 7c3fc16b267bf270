import { useEffect, useRef, useState, type ReactElement } from 'react';
import { createPortal } from 'react-dom';
import Button from 'react-bootstrap/Button';
import { download } from '../kit/download.ts';
import { Flat } from './flat.tsx';
import type { FlatDrawing } from './flat-path.ts';
import { Marks, type MarksDrawing } from './marks.tsx';
import './true-size.scss';

interface TrueSizeProps {
  readonly drawing: FlatDrawing | MarksDrawing;
  readonly name: string;
}

/** A drawing on paper as large as the part, with a rule to hold a rule against; and as a file, for whoever cuts by machine. */
export function TrueSize({ drawing, name }: TrueSizeProps): ReactElement {
  const [isPrinting, setPrinting] = useState(false);
  const sheet = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!isPrinting) return undefined;
    document.body.classList.add('prints-true');
    const over = (): void => setPrinting(false);
    window.addEventListener('afterprint', over);
    window.print();
    return () => {
      window.removeEventListener('afterprint', over);
      document.body.classList.remove('prints-true');
    };
  }, [isPrinting]);
  const file = name.toLowerCase().replaceAll(/[^a-z0-9]+/gu, '-');
  const asSvg = (): void =>
    download(`${file}.svg`, new XMLSerializer().serializeToString(sheet.current!.querySelector('svg')!), 'image/svg+xml');
  const asDxf = async (flat: FlatDrawing): Promise<void> =>
    download(`${file}.dxf`, (await import('./flat-dxf.ts')).flatDxf(flat), 'image/vnd.dxf');
  return (
    <p className="no-print d-flex flex-wrap gap-2">
      <Button variant="plain" onClick={() => setPrinting(true)}>
        Print at true size
      </Button>
      <Button variant="plain" onClick={asSvg}>
        SVG
      </Button>
      {drawing.kind === 'flat' ? (
        <Button variant="plain" onClick={() => void asDxf(drawing)}>
          DXF
        </Button>
      ) : null}
      {createPortal(
        <div className="true-size" ref={sheet}>
          {drawing.kind === 'flat' ? <Flat name={name} {...drawing} isTrue /> : <Marks name={name} {...drawing} isTrue />}
          <Rule />
          <p>
            {name}. Printed at 100 %, not fitted to the page, the rule is 100 mm long: hold another against it before anything is cut or
            set.
          </p>
        </div>,
        document.body,
      )}
    </p>
  );
}

/** 100 mm, with a stroke every ten. */
function Rule(): ReactElement {
  return (
    <svg xmlns="http://www.w3.org/2000/svg" viewBox="-1 0 102 8" width="102mm" height="8mm" aria-hidden="true">
      <path
        d={`M0,4H100${Array.from({ length: 11 }, (_, at) => `M${at * 10},${at % 5 === 0 ? 1 : 2.5}V4`).join('')}`}
        stroke="black"
        strokeWidth="0.3"
        fill="none"
      />
    </svg>
  );
}
