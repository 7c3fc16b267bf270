import { finestTool, toolFit } from '@jubb/book';
import { limitQuantity, type Limit, type Tool } from '@jubb/sheet';
import { shopToday } from '../../kit/days.ts';
import type { ReactElement } from 'react';

/** Whether the tool is fine enough for the tolerance, and which one would be where it is not. */
export function ToolFitWords({
  limit,
  tool,
  tools,
}: {
  readonly limit: Limit;
  readonly tool: Tool;
  readonly tools: readonly Tool[];
}): ReactElement | null {
  const { ratio, enough } = toolFit(limit, tool);
  if (ratio === undefined) return null;
  const figure = ratio >= 20 ? ratio.toFixed(0) : ratio.toFixed(1);
  // A meter against an open end of megohms has no ratio worth saying.
  if (ratio > 1000) return <span className="soft">fine enough</span>;
  if (enough) return <span className="soft">1 : {figure}, fine enough</span>;
  const better = finestTool(limit, tools, limitQuantity(limit), shopToday());
  return (
    <span className="v-unsure">
      1 : {figure}, and 1 : 4 is wanted.{' '}
      {better && better.id !== tool.id && toolFit(limit, better).enough
        ? `${better.tag} ${better.name} would do.`
        : 'No tool of the crib is finer: repeat it.'}
    </span>
  );
}
