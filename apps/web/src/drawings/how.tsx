import type { Limit, ToolKind } from '@jubb/sheet';
import type { ReactElement } from 'react';

/** Tool in steel at the part in ink, in a field of 200 × 110. */
const HOW: Partial<Record<ToolKind, ReactElement>> = {
  micrometer: (
    <>
      <circle cx="82" cy="58" r="26" className="part" />
      <path className="tool" d="M56 58H44V20H128V44M108 58H150M128 50H176V66H128Z" />
    </>
  ),
  calliper: (
    <>
      <path className="part" d="M60 50H130V92H60Z" />
      <path className="tool" d="M30 24H180V34H30ZM60 34V96L50 84V34M130 34V96L140 84V34" />
    </>
  ),
  'bore-gauge': (
    <>
      <path className="part" d="M40 14H160V34H40ZM40 80H160V100H40Z" />
      <path className="tool" d="M96 34V80M88 57H190M96 34l-5 8h10ZM96 80l-5 -8h10Z" />
    </>
  ),
  'depth-gauge': (
    <>
      <path className="part" d="M30 50H80V92H120V50H170V104H30Z" />
      <path className="tool" d="M60 40H140V50H60ZM100 16V92" />
    </>
  ),
  'dial-indicator': (
    <>
      <path className="part" d="M24 84H160V100H24Z" />
      <circle cx="100" cy="34" r="22" className="tool" />
      <path className="tool" d="M100 56V84M100 34L112 22M122 34H172V100" />
    </>
  ),
  'feeler-gauge': (
    <>
      <path className="part" d="M24 22H120V50H24ZM24 60H120V92H24Z" />
      <path className="tool" d="M84 55H180" strokeWidth="5" />
    </>
  ),
  multimeter: (
    <>
      <path className="part" d="M20 40H52V84H20ZM96 40H128V84H96Z" />
      <path className="tool" d="M142 20H188V92H142ZM148 28H182V46H148ZM36 62L60 24H142M112 62L130 78H142" />
    </>
  ),
  'spring-balance': (
    <>
      <circle cx="60" cy="60" r="34" className="part" />
      <path className="tool" d="M60 26H112M112 18H168V34H112ZM168 26H188" />
    </>
  ),
  'torque-wrench': (
    <>
      <path className="part" d="M40 46L56 38L72 46V66L56 74L40 66Z" />
      <path className="tool" d="M56 56H180M150 48H184V64H150Z" />
    </>
  ),
  'beam-wrench': (
    <>
      <path className="part" d="M40 46L56 38L72 46V66L56 74L40 66Z" />
      <path className="tool" d="M56 56H180M56 56L150 36M142 30L158 42" />
    </>
  ),
  'pressure-gauge': (
    <>
      <path className="part" d="M20 60H90V96H20Z" />
      <circle cx="140" cy="46" r="30" className="tool" />
      <path className="tool" d="M90 78H140V76M140 46L156 28" />
    </>
  ),
  scale: (
    <>
      <path className="part" d="M70 24H130V62H70Z" />
      <path className="tool" d="M44 62H156M60 62L52 92H148L140 62" />
    </>
  ),
  protractor: (
    <>
      <path className="part" d="M20 88H180M20 88L150 40" />
      <path className="tool" d="M90 88A70 70 0 0 0 86 63M60 88A40 40 0 0 0 57 74" />
    </>
  ),
  thermometer: (
    <>
      <path className="part" d="M30 60H120V96H30Z" />
      <path className="tool" d="M80 74L150 22M80 74m-5 0a5 5 0 1 0 10 0a5 5 0 1 0 -10 0" />
    </>
  ),
  rule: (
    <>
      <path className="part" d="M40 26H150V54H40Z" />
      <path className="tool" d="M20 66H180V84H20ZM40 66V74M60 66V72M80 66V72M100 66V74M120 66V72M140 66V72M150 60V84" />
    </>
  ),
  stopwatch: (
    <>
      <circle cx="100" cy="60" r="34" className="tool" />
      <path className="tool" d="M100 60V36M100 26V16M90 16H110" />
    </>
  ),
};

/** Where and how a limit without places is measured: its tool at a part. */
export function HowSketch({ limit }: { readonly limit: Limit }): ReactElement | null {
  const drawing = limit.tool && HOW[limit.tool];
  if (!drawing) return null;
  return (
    <svg
      className="how"
      viewBox="0 0 200 110"
      role="img"
      aria-label={`${limit.tool?.replaceAll('-', ' ') ?? ''}: ${limit.how}${limit.between ? `, between ${limit.between}` : ''}`}
    >
      {drawing}
    </svg>
  );
}
