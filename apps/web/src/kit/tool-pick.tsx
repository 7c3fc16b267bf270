import { toolRefusal, type Tool, type ToolSize } from '@jubb/sheet';
import { shopToday } from './days.ts';
import { useId, type ReactElement } from 'react';
import FormLabel from 'react-bootstrap/FormLabel';
import FormSelect from 'react-bootstrap/FormSelect';
import { readStored, writeStored } from './prefs.ts';

interface ToolPickProps {
  readonly label: string;
  readonly tools: readonly Tool[];
  readonly chosen: Tool | undefined;
  readonly onChoose: (id: string) => void;
}

/** The tool last used for this among those that will do, else the first that does. */
export function pickTool(
  tools: readonly Tool[],
  kind: string | undefined,
  size: ToolSize | undefined,
  chosen: string | undefined,
): Tool | undefined {
  const today = shopToday();
  const usable = tools.filter((tool) => tool.kind === kind && !toolRefusal(tool, size, today));
  return usable.find((tool) => tool.id === chosen) ?? usable.find((tool) => tool.id === readStored(`tool.${kind ?? ''}`)) ?? usable[0];
}

export function rememberTool(tool: Tool): void {
  writeStored(`tool.${tool.kind}`, tool.id);
}

/** The tools of a kind; those that will not do are shown with the reason and cannot be taken. */
export function ToolPick({ label, tools, chosen, onChoose, size }: ToolPickProps & { readonly size?: ToolSize | undefined }): ReactElement {
  const id = useId();
  const today = shopToday();
  // What is out of use is chosen nowhere; what was kept with it still names it.
  const offered = tools.filter(({ id: toolId, retired }) => !retired || toolId === chosen?.id);
  return (
    <div>
      <FormLabel htmlFor={id}>{label}</FormLabel>
      <FormSelect id={id} value={chosen?.id ?? ''} onChange={(event) => onChoose(event.target.value)}>
        {chosen ? null : <option value="">none of them will do</option>}
        {offered.map((tool) => {
          const against = toolRefusal(tool, size, today);
          return (
            <option key={tool.id} value={tool.id} disabled={against !== undefined}>
              {tool.tag} {tool.name}
              {against ? `: ${against}` : ''}
            </option>
          );
        })}
      </FormSelect>
    </div>
  );
}
