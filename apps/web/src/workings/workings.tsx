import { useState, type ReactElement } from 'react';
import { Link } from 'react-router';
import FormLabel from 'react-bootstrap/FormLabel';
import FormControl from 'react-bootstrap/FormControl';
import Table from 'react-bootstrap/Table';
import { useWorkings } from '../link/queries.ts';
import { Loading, Title, Wrong } from '../kit/pieces.tsx';

export function Workings(): ReactElement {
  const { data: workings, error } = useWorkings();
  const [find, setFind] = useState('');
  if (!workings) return error ? <Wrong error={error} /> : <Loading what="the workings" />;
  const words = find.toLowerCase().split(/\s+/u).filter(Boolean);
  const hits = workings.filter(({ id, title, area, sources, inputs }) => {
    const all = [id, title, area, ...sources.map(({ document }) => document), ...inputs.map(({ label }) => label)].join(' ').toLowerCase();
    return words.every((word) => all.includes(word));
  });
  return (
    <>
      <Title sub="Questions a bench asks, with the way to the answer and where it comes from.">Workings</Title>
      <div className="mb-3" style={{ maxWidth: 480 }}>
        <FormLabel htmlFor="find-working">What do you want to know?</FormLabel>
        <FormControl id="find-working" type="search" autoComplete="off" value={find} onChange={(event) => setFind(event.target.value)} />
      </div>
      {hits.length === 0 ? <p>No working holds “{find}”. Thread, torque, gear, play … fewer words find more.</p> : null}
      <Table>
        <thead>
          <tr>
            <th scope="col">Question</th>
            <th scope="col">About</th>
            <th scope="col">Rests on</th>
          </tr>
        </thead>
        <tbody>
          {hits.map((working) => (
            <tr key={working.id}>
              <td>
                <Link to={`/workings/${working.id}`}>{working.title}</Link>
              </td>
              <td>{working.area}</td>
              <td className="soft">{working.sources.map((source) => source.document).join('; ')}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </>
  );
}
