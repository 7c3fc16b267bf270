import { ENDPOINTS } from '@jubb/wire';
import type { ReactElement } from 'react';
import { ask } from '../link/client.ts';
import { switchSession } from '../link/queries.ts';
import { LIGHTS, UNIT_CHOICES, useLight, useUnitChoice } from '../kit/prefs.ts';

/** Units and light, as this device has them. */
export function Picks(): ReactElement {
  const [units, setUnits] = useUnitChoice();
  const [light, setLight] = useLight();
  return (
    <>
      <Pick name="Units" chosen={units} choices={UNIT_CHOICES} onChoose={setUnits} />
      <Pick name="Light" chosen={light} choices={LIGHTS} onChoose={setLight} />
    </>
  );
}

interface PickProps<T extends string> {
  readonly name: string;
  readonly chosen: T;
  readonly choices: readonly T[];
  readonly onChoose: (choice: T) => void;
}

function Pick<T extends string>({ name, chosen, choices, onChoose }: PickProps<T>): ReactElement {
  return (
    <select
      className="quiet-select"
      aria-label={name}
      value={chosen}
      onChange={(event) => onChoose(choices.find((choice) => choice === event.target.value) ?? chosen)}
    >
      {choices.map((choice) => (
        <option key={choice} value={choice}>
          {choice}
        </option>
      ))}
    </select>
  );
}

export async function logOut(): Promise<void> {
  await ask(ENDPOINTS.session.logOut).catch(() => undefined);
  switchSession(null);
}
