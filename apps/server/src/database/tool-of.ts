import type { Tool } from '@jubb/sheet';
import type { ToolRow } from './entities/index.js';

/** What the bench knows of a tool. */
export function toolOf({
  id,
  tag,
  name,
  kind,
  quantity,
  unit,
  low,
  high,
  resolution,
  u,
  s,
  length,
  calibrationDue,
  retired,
}: ToolRow): Tool {
  return { id, tag, name, kind, quantity, unit, low, high, resolution, u, s, length, calibrationDue, retired };
}
