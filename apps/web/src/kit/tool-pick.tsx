import type { Quantity } from '@jubb/core';
import { quantitiesOf, toolRefusal, type Tool, type ToolSize } from '@jubb/sheet';
import { shopToday } from './days.ts';
import { useId, type ReactElement } from 'react';
import FormLabel from 'react-bootstrap/FormLabel';
import FormSelect from 'react-bootstrap/FormSelect';
import { Link } from 'react-router';
import { useSession } from '../link/queries.ts';
import { readStored, writeStored } from './prefs.ts';

interface ToolPickProps {
  readonly label: string;
  /** The crib; those of the kind are offered. */
  readonly tools: readonly Tool[];
  readonly kind: string | undefined;
  /** Where the sheet names no kind, whatever reads this will do. */
  readonly quantity?: Quantity;
  readonly chosen: Tool | undefined;
  readonly onChoose: (id: string) => void;
}

/** Whether a tool is one of what is asked for: its kind, or where none is named what it reads. */
function isAsked(tool: Tool, kind: string | undefined, quantity: Quantity | undefined): boolean {
  return kind === undefined ? quantity !== undefined && quantitiesOf(tool).includes(quantity) : tool.kind === kind;
}

/** The tool last used for this among those that will do, else the first that does. */
export function pickTool(
  tools: readonly Tool[],
  kind: string | undefined,
  size: ToolSize | undefined,
  chosen: string | undefined,
  quantity?: Quantity,
): Tool | undefined {
  const today = shopToday();
  const usable = tools.filter((tool) => isAsked(tool, kind, quantity) && !toolRefusal(tool, size, today));
  return usable.find((tool) => tool.id === chosen) ?? usable.find((tool) => tool.id === readStored(`tool.${kind ?? ''}`)) ?? usable[0];
}

export function rememberTool(tool: Tool): void {
  writeStored(`tool.${tool.kind}`, tool.id);
}

/** The tools of a kind; those that will not do are shown with the reason and cannot be taken, and where none will do that is said before one reads. */
export function ToolPick({
  label,
  tools,
  kind,
  quantity,
  chosen,
  onChoose,
  size,
}: ToolPickProps & { readonly size?: ToolSize | undefined }): ReactElement {
  const id = useId();
  const today = shopToday();
  // What is out of use is chosen nowhere; what was kept with it still names it.
  const offered = tools.filter((tool) => isAsked(tool, kind, quantity) && (!tool.retired || tool.id === chosen?.id));
  if (offered.length === 0) return <Lacks kind={kind} quantity={quantity} />;
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
      {chosen ? null : <Lacks kind={kind} quantity={quantity} isThere />}
    </div>
  );
}

interface LacksProps {
  readonly kind: string | undefined;
  readonly quantity: Quantity | undefined;
  readonly isThere?: boolean;
}

/** Nothing of the crib will do: what waits for it, and who can mend that. */
function Lacks({ kind, quantity, isThere = false }: LacksProps): ReactElement {
  const { data: session } = useSession();
  const name = kind?.replaceAll('-', ' ') ?? `tool that reads a ${quantity ?? 'figure'}`;
  return (
    <p className="v-unsure mb-0">
      {isThere ? `No ${name} of the crib will do here.` : `There is no ${name} in the crib.`} It can be kept once there is one.{' '}
      {session?.person.role === 'foreman' ? (
        <Link to={kind === undefined ? '/crib/new' : `/crib/new?kind=${kind}`}>Put one in the crib</Link>
      ) : (
        'The foreman puts one in.'
      )}
    </p>
  );
}
