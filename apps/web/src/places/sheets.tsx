import { useRef, useState, type ReactElement } from 'react';
import { Link } from 'react-router';
import { call } from '../api/client.ts';
import { queryClient, useSession, useSheets } from '../api/queries.ts';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';

export function Sheets(): ReactElement {
  const { data: sheets, error } = useSheets();
  const { data: session } = useSession();
  return (
    <>
      <Title sub="All that is known about a model. A job is pinned to the revision it began with.">Sheets</Title>
      {session?.person.role === 'apprentice' ? null : <ImportSheet />}
      <Wrong error={error} />
      {!sheets && !error ? <Loading what="the sheets" /> : null}
      {sheets?.length === 0 ? <p>No sheets yet. Bring in a sheet file, and have the foreman approve it.</p> : null}
      {sheets && sheets.length > 0 ? (
        <table className="table mt-3">
          <thead>
            <tr>
              <th scope="col">Sheet</th>
              <th scope="col">Family</th>
              <th scope="col">Machine</th>
              <th scope="col">Revision</th>
              <th scope="col">State</th>
            </tr>
          </thead>
          <tbody>
            {sheets.map((sheet) => (
              <tr key={sheet.revisionId}>
                <td>
                  <Link to={`/sheets/${sheet.revisionId}`}>{sheet.title}</Link>
                </td>
                <td>{sheet.family}</td>
                <td>{sheet.machine}</td>
                <td className="fig fs-5">{sheet.revision}</td>
                <td>
                  <span className="trust">{sheet.status}</span>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
      <p className="soft mt-3">
        The format of a sheet file is published as <a href="/api/v1/sheets/schema">JSON Schema</a>.
      </p>
    </>
  );
}

function ImportSheet(): ReactElement {
  const file = useRef<HTMLInputElement>(null);
  const [error, setError] = useState<unknown>();
  const [done, setDone] = useState<string>();
  const bringIn = async (): Promise<void> => {
    const chosen = file.current?.files?.[0];
    if (!chosen) return;
    setError(undefined);
    setDone(undefined);
    try {
      const { key, revision } = await call<{ key: string; revision: number }>('POST', '/sheets/import', { text: await chosen.text() });
      setDone(`${key}, revision ${revision}, is here as a draft.`);
      await queryClient.invalidateQueries({ queryKey: ['sheets'] });
    } catch (refusal) {
      setError(refusal);
    } finally {
      if (file.current) file.current.value = '';
    }
  };
  return (
    <>
      <label className="form-label" htmlFor="sheet-file">
        Bring in a sheet file
      </label>
      <input
        id="sheet-file"
        ref={file}
        className="form-control mb-2"
        style={{ maxWidth: 480 }}
        type="file"
        accept=".json,application/json"
        onChange={() => void bringIn()}
      />
      <Wrong error={error} />
      {done ? <p role="status">{done}</p> : null}
    </>
  );
}
