import { DxfWriter, LWPolylineFlags, Units, point2d, point3d } from '@tarikjabiri/dxf';
import type { FlatDrawing } from './flat-path.ts';

/** A flat part as DXF, mm, for whoever cuts by machine: outlines and holes closed, a bead on a layer of its own. */
export function flatDxf({ outlines, holes, along }: FlatDrawing): string {
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Millimeters);
  const closed = (corners: FlatDrawing['outlines'][number], layerName: string): void =>
    void dxf.addLWPolyline(
      corners.map(({ x, y, bulge = 0 }) => ({ point: point2d(x, y), bulge })),
      { flags: LWPolylineFlags.Closed, layerName },
    );
  dxf.addLayer('CUT', 7);
  for (const outline of outlines) closed(outline, 'CUT');
  for (const { x, y, d } of holes) dxf.addCircle(point3d(x, y, 0), d / 2, { layerName: 'CUT' });
  if (along) {
    dxf.addLayer('BEAD', 3);
    for (const line of along.lines) closed(line, 'BEAD');
  }
  return dxf.stringify();
}
