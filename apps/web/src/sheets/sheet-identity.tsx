import { reshapes, type SheetFile } from '@jubb/sheet';
import type { ReactElement } from 'react';
import Table from 'react-bootstrap/Table';
import { ReshapingLines } from './reshaping-lines.tsx';

export function Identity({ file }: { readonly file: SheetFile }): ReactElement | null {
  const { variants = [], features = [] } = file;
  if (variants.length === 0) return null;
  return (
    <section className="mb-4">
      <h2>Which one is it</h2>
      <div className="table-wide" role="region" aria-label="Variants" tabIndex={0}>
        <Table>
          <thead>
            <tr>
              <th scope="col">What to look at</th>
              {variants.map((variant) => (
                <th key={variant.ref} scope="col">
                  {variant.name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {features.map((feature) => (
              <tr key={feature.ref}>
                <td>
                  {feature.ask} <span className="soft">{feature.how}</span>
                </td>
                {variants.map((variant) => {
                  const tell = variant.tells.find(({ feature: ref }) => ref === feature.ref);
                  return (
                    <td key={variant.ref} className={feature.quantity ? 'fig fs-5' : ''}>
                      {tell ? tellWords(tell) : ''}
                    </td>
                  );
                })}
              </tr>
            ))}
            {variants.some((variant) => variant.differs !== undefined || reshapes(variant)) ? (
              <tr>
                <td>What is different</td>
                {variants.map((variant) => (
                  <td key={variant.ref}>
                    {variant.differs}
                    <ReshapingLines file={file} of={variant} />
                  </td>
                ))}
              </tr>
            ) : null}
          </tbody>
        </Table>
      </div>
      <p className="soft">
        {[file.mass && `Mass ${file.mass}`, file.serialPlace && `Serial: ${file.serialPlace}`].filter(Boolean).join('. ')}
      </p>
    </section>
  );
}

/** "128 ± 1.2 mm": the unit once, where both have the same. */
function tellWords({ is, within }: { readonly is: string; readonly within?: string }): string {
  if (within === undefined) return is;
  const unit = /\s\S+$/u.exec(is)?.[0] ?? '';
  return unit !== '' && within.endsWith(unit) ? `${is.slice(0, -unit.length)} ± ${within}` : `${is} ± ${within}`;
}
