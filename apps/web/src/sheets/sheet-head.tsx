import type { SheetFile } from '@jubb/sheet';
import type { ReactElement } from 'react';
import FormLabel from 'react-bootstrap/FormLabel';
import FormControl from 'react-bootstrap/FormControl';
import type { SheetDraft } from './use-sheet-draft.ts';

const HEAD = [
  ['title', 'Title'],
  ['make', 'Make'],
  ['model', 'Model'],
  ['machine', 'Machine'],
  ['mass', 'Mass'],
  ['serialPlace', 'Where its serial is'],
  ['notes', 'Notes'],
] as const satisfies readonly (readonly [keyof SheetFile, string])[];

/** What stands above the lists: names, mass, sides. */
export function SheetHead({ draft }: { readonly draft: SheetDraft }): ReactElement {
  const { file, change } = draft;
  const put = (field: (typeof HEAD)[number][0], text: string): void => {
    const { [field]: _, ...rest } = file;
    change((text === '' && !['title', 'make', 'model', 'machine'].includes(field) ? rest : { ...file, [field]: text }) as SheetFile);
  };
  return (
    <>
      {HEAD.map(([field, label]) => (
        <div key={field} className="mb-2">
          <FormLabel htmlFor={`head-${field}`}>{label}</FormLabel>
          {field === 'notes' ? (
            <FormControl
              id={`head-${field}`}
              as="textarea"
              rows={3}
              value={file[field] ?? ''}
              onChange={(event) => put(field, event.target.value)}
            />
          ) : (
            <FormControl
              id={`head-${field}`}
              autoComplete="off"
              value={file[field] ?? ''}
              onChange={(event) => put(field, event.target.value)}
            />
          )}
        </div>
      ))}
      <div className="mb-2">
        <FormLabel htmlFor="head-sides">Sides, parted by semicolons</FormLabel>
        <FormControl
          id="head-sides"
          autoComplete="off"
          defaultValue={(file.sides ?? []).join('; ')}
          onBlur={({ target }) => {
            const sides = target.value
              .split(';')
              .map((side) => side.trim())
              .filter(Boolean);
            if (sides.join(';') !== (file.sides ?? []).join(';')) change({ ...file, sides });
          }}
        />
      </div>
    </>
  );
}
