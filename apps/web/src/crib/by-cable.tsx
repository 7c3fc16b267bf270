import type { InstrumentView } from '@jubb/wire';
import { useId, useState, useSyncExternalStore, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import FormLabel from 'react-bootstrap/FormLabel';
import FormSelect from 'react-bootstrap/FormSelect';
import { Wrong } from '../kit/pieces.tsx';
import { useSend } from '../kit/use-send.ts';
import { SERIAL_DRIVERS, type DriverName } from '../link/serial-drivers.ts';
import { cableState, canSerial, letGo, plugIn, rememberedCables, subscribeCables } from '../link/serial.ts';

const DRIVERS = Object.entries(SERIAL_DRIVERS) as readonly (readonly [DriverName, (typeof SERIAL_DRIVERS)[DriverName]])[];
const SPEEDS = [1200, 2400, 4800, 9600, 19_200, 38_400, 57_600, 115_200] as const;

/** An instrument at the end of a cable of this very tablet. */
export function ByCable({ instrument: { id, tool } }: { readonly instrument: InstrumentView }): ReactElement {
  const field = useId();
  const { isOpen, isA, trouble } = useSyncExternalStore(subscribeCables, () => cableState(id));
  const before = rememberedCables().find((cable) => cable.instrumentId === id);
  const [driver, setDriver] = useState<DriverName>(before?.driver ?? 'text');
  const [speed, setSpeed] = useState<number>(before?.speed ?? SERIAL_DRIVERS[driver].speed);
  const { busy, error, send } = useSend();
  if (!canSerial())
    return (
      <p className="mb-0">
        This browser opens no port, or not over this address. What else works: an instrument that types like a keyboard types into whatever
        field is asked for; one with a program of its own sends its lines to the address that its key belongs to.
      </p>
    );
  const open = (): void => void send(() => plugIn({ instrumentId: id, unit: tool.unit, driver, speed }));
  return (
    <div className="driver">
      {isOpen ? (
        <div>
          <b className="v-in">On its cable</b>
          {isA ? <div className="soft">It says it is {isA}</div> : null}
        </div>
      ) : (
        <>
          <div>
            <FormLabel htmlFor={`${field}-driver`}>How it talks</FormLabel>
            <FormSelect id={`${field}-driver`} value={driver} onChange={(event) => setDriver(event.target.value as DriverName)}>
              {DRIVERS.map(([name, { name: words }]) => (
                <option key={name} value={name}>
                  {words}
                </option>
              ))}
            </FormSelect>
          </div>
          <div>
            <FormLabel htmlFor={`${field}-speed`}>Speed, as its book says</FormLabel>
            <FormSelect id={`${field}-speed`} value={speed} onChange={(event) => setSpeed(Number(event.target.value))}>
              {SPEEDS.map((one) => (
                <option key={one}>{one}</option>
              ))}
            </FormSelect>
          </div>
        </>
      )}
      <div className="keys">
        {isOpen || before ? (
          <Button variant="plain" disabled={busy} onClick={() => void send(() => letGo(id))}>
            Let the cable go
          </Button>
        ) : null}
        {isOpen ? null : (
          <Button variant="primary" disabled={busy} onClick={open}>
            Choose its port
          </Button>
        )}
      </div>
      {trouble ? <p className="v-unsure mb-0 w-100">{trouble}</p> : null}
      <Wrong error={error} />
    </div>
  );
}
