import { SEAL_FAILURES, SEAL_FAILURE_WORDS, type SealFailure } from '@jubb/book';
import { useId, type ReactElement } from 'react';
import FormLabel from 'react-bootstrap/FormLabel';
import FormSelect from 'react-bootstrap/FormSelect';

interface OldSealProps {
  readonly why: SealFailure | '';
  readonly onWhy: (why: SealFailure | '') => void;
}

/** What an old seal shows of why it leaked: nobody has to say, and whoever has the unit next reads it. */
export function OldSealShows({ why, onWhy }: OldSealProps): ReactElement {
  const id = useId();
  return (
    <div className="mt-2">
      <FormLabel htmlFor={id}>The old seal shows</FormLabel>
      <FormSelect id={id} value={why} onChange={(event) => onWhy(event.target.value as SealFailure | '')}>
        <option value="">not looked at</option>
        {SEAL_FAILURES.map((one) => (
          <option key={one} value={one}>
            {SEAL_FAILURE_WORDS[one]}
          </option>
        ))}
      </FormSelect>
    </div>
  );
}
