import { readLineYaml, writeLineYaml } from '@jubb/sheet/editing';
import { useState, type ReactElement } from 'react';
import FormLabel from 'react-bootstrap/FormLabel';
import FormControl from 'react-bootstrap/FormControl';

interface LineTextProps {
  readonly line: object;
  readonly onChange: (line: object) => void;
}

/** A whole line as YAML, for what a table has no room for: ways, looks, counts, tells. */
export function LineText({ line, onChange }: LineTextProps): ReactElement {
  const written = writeLineYaml(line);
  const [typed, setTyped] = useState<string>();
  const [problem, setProblem] = useState<string>();
  const take = (): void => {
    if (typed === undefined) return;
    const read = readLineYaml(typed);
    if (!read.ok) return setProblem(`Line ${read.line}: ${read.message}`);
    setProblem(undefined);
    setTyped(undefined);
    onChange(read.line);
  };
  return (
    <div>
      <FormLabel htmlFor="line-text">The whole line</FormLabel>
      <FormControl
        id="line-text"
        as="textarea"
        className={`line-text ${problem ? 'is-invalid' : ''}`}
        rows={Math.min(24, written.split('\n').length + 2)}
        spellCheck={false}
        value={typed ?? written}
        aria-describedby="line-problem"
        onChange={(event) => setTyped(event.target.value)}
        onBlur={take}
      />
      <div id="line-problem" className="v-out">
        {problem}
      </div>
    </div>
  );
}
