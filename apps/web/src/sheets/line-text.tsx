import type { SheetList } from '@jubb/sheet';
import { readLineYaml, writeLineYaml } from '@jubb/sheet/editing';
import { Suspense, lazy, useState, type ReactElement } from 'react';
import { Loading } from '../kit/pieces.tsx';

// The editor of text is as large as the rest of the page.
const YamlEditor = lazy(async () => ({ default: (await import('./yaml-editor.tsx')).YamlEditor }));

interface LineTextProps {
  readonly list: SheetList;
  readonly line: object;
  readonly onChange: (line: object) => void;
}

/** A whole line as YAML, for what a table has no room for: ways, looks, counts, tells. */
export function LineText({ list, line, onChange }: LineTextProps): ReactElement {
  const written = writeLineYaml(line);
  const [typed, setTyped] = useState<string>();
  const [problem, setProblem] = useState<string>();
  const take = (): void => {
    if (typed === undefined || typed === written) return;
    const read = readLineYaml(typed);
    if (!read.ok) return setProblem(`Line ${read.line}: ${read.message}`);
    setProblem(undefined);
    setTyped(undefined);
    onChange(read.line);
  };
  return (
    <div>
      <h3 className="mb-1">The whole line</h3>
      <Suspense fallback={<Loading what="the editor" />}>
        <YamlEditor label="The whole line" list={list} text={typed ?? written} onText={setTyped} onLeave={take} />
      </Suspense>
      <div className="soft">Ctrl with space offers what may stand here. It is taken over when the field is left.</div>
      <div className="v-out" role="alert">
        {problem}
      </div>
    </div>
  );
}
