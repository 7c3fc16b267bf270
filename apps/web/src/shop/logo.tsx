import { ENDPOINTS, type ShopView } from '@jubb/wire';
import type { ReactElement } from 'react';
import Button from 'react-bootstrap/Button';
import { usePhotoKey } from '../capture/photo-key.tsx';
import { Wrong } from '../kit/pieces.tsx';
import { offerUndo } from '../kit/undo.ts';
import { useSend } from '../kit/use-send.ts';
import { ask } from '../link/client.ts';
import { files } from '../link/files.ts';
import { refresh } from '../link/queries.ts';
import './shop.scss';

/** The picture at the head of quotes and reports. */
export function Logo({ shop, mayChange }: { readonly shop: ShopView; readonly mayChange: boolean }): ReactElement | null {
  const { busy, error, send } = useSend();
  const put = (file: string | null): void =>
    void send(async () => {
      const { version } = await ask(ENDPOINTS.shop.logo, { body: { version: shop.version, file } });
      offerUndo(file === null ? 'The logo is taken off' : 'The shop has another logo', async () => {
        await ask(ENDPOINTS.shop.logo, { body: { version, file: shop.logo } });
        await refresh({ queryKey: ['session'] });
      });
      await refresh({ queryKey: ['session'] });
    });
  const photo = usePhotoKey(({ file }) => put(file));
  if (!mayChange && shop.logo === null) return null;
  return (
    <section aria-label="Logo" className="mt-4">
      <h2>Logo</h2>
      <p className="soft">It stands at the head of quotes and reports, on white.</p>
      {shop.logo === null ? null : <img className="shop-logo" src={files.url(shop.logo)} alt="Logo of the shop" height={56} />}
      {photo.element}
      <Wrong error={error} />
      {mayChange ? (
        <p className="keys">
          <Button variant="plain" disabled={busy} onClick={photo.open}>
            {shop.logo === null ? 'Choose a picture' : 'Another picture'}
          </Button>
          {shop.logo === null ? null : (
            <Button variant="plain" disabled={busy} onClick={() => put(null)}>
              Take it off
            </Button>
          )}
        </p>
      ) : null}
    </section>
  );
}
