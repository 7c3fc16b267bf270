import { ENDPOINTS } from '@jubb/wire';
import { useQuery } from '@tanstack/react-query';
import { useState, type ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import Table from 'react-bootstrap/Table';
import { Care, Loading, Title, Wrong } from '../kit/pieces.tsx';
import { addressOf, ask } from '../link/client.ts';
import { ShopPlaces } from './shop-places.tsx';
import { TABLET_CHECKS, type Checked } from './tablet-checks.ts';

/** How a tablet comes to this shop, and what of it works once it is here. */
export function NetworkPage(): ReactElement {
  const { data: network, error } = useQuery({ queryKey: ['network'], queryFn: () => ask(ENDPOINTS.tablet.network) });
  return (
    <>
      <Title sub="Scan the code with a tablet that comes for the first time; then try it here.">On the network</Title>
      <ShopPlaces />
      <Wrong error={error} />
      {!network && !error ? <Loading what="the network" /> : null}
      {/* A tablet that is here is tried; the code is for the next one. */}
      <div className={`two ${network?.isSecure ? '' : 'form-first'}`}>
        {network?.isSecure ? <ThisTablet /> : null}
        <section aria-label="How a tablet comes here">
          {network && network.secure.length === 0 ? (
            <Care title="This machine alone">
              The shop is served to its own machine. Whoever looks after it: <code>./jubb start --lan</code> serves the tablets of the
              network, by https.
            </Care>
          ) : null}
          {network && network.secure.length > 0 ? (
            <>
              <img
                className="network-code"
                src={addressOf(ENDPOINTS.tablet.code, {})}
                alt={`Code to scan: ${network.trust ?? network.secure[0]}`}
                width={240}
                height={240}
              />
              <p className="fig fs-4 mb-1">{network.trust ?? network.secure[0]}</p>
              {network.trust === null ? null : (
                <ol>
                  <li>Scan the code: a page of this machine opens.</li>
                  <li>Fetch the shop’s certificate there and trust it, if its fingerprint is the one below.</li>
                  <li>
                    Open <span className="fig">{network.secure[0]}</span>
                    {network.secure.length > 1 ? (
                      <>
                        , or by number <span className="fig">{network.secure.slice(1).join(', ')}</span>
                      </>
                    ) : null}
                    .
                  </li>
                </ol>
              )}
              {network.fingerprint === null ? null : (
                <p>
                  Fingerprint (SHA-256) of the shop’s authority:
                  <br />
                  <span className="fig network-print">{network.fingerprint}</span>
                </p>
              )}
            </>
          ) : null}
        </section>
        {network?.isSecure ? null : <ThisTablet />}
      </div>
    </>
  );
}

function ThisTablet(): ReactElement {
  const [found, setFound] = useState<Readonly<Record<string, Checked>>>({});
  const [isBusy, setBusy] = useState(false);
  const tryAll = async (): Promise<void> => {
    setBusy(true);
    setFound({});
    for (const { what, run, refused } of TABLET_CHECKS) {
      const checked = await run().catch((): Checked => ({ isGood: false, words: refused }));
      setFound((before) => ({ ...before, [what]: checked }));
    }
    setBusy(false);
  };
  return (
    <section aria-label="This tablet">
      <h2>This tablet</h2>
      <p>
        <Button variant="primary" disabled={isBusy} onClick={() => void tryAll()}>
          Try everything
        </Button>{' '}
        <span className="soft">The browser asks for the camera and the microphone: allow both.</span>
      </p>
      <Table>
        <tbody>
          {TABLET_CHECKS.map(({ what }) => {
            const one = found[what];
            return (
              <tr key={what}>
                <th scope="row">{what}</th>
                <td>{one ? <b className={one.isGood ? 'v-in' : 'v-out'}>{one.isGood ? 'works' : 'does not'}</b> : null}</td>
                <td>{one?.words ?? <span className="soft">not tried yet</span>}</td>
              </tr>
            );
          })}
        </tbody>
      </Table>
    </section>
  );
}
