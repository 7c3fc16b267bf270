import { afterAll, beforeAll } from '@jest/globals';
import { openBrowser, type Screen } from './browser.ts';
import { demoDatabase, freshDatabase, type TestDatabase } from './database.ts';
import { startServer, type RunningServer } from './server.ts';

export interface OwnShop {
  database: TestDatabase;
  /** A test that stops it puts a new one in its place. */
  server: RunningServer;
  screen: Screen;
}

/** A shop with a browser before it, for one test file; taken away after its tests. */
export function ownShop(options: { readonly empty?: boolean; readonly demo?: 'small' | 'full' } = {}): OwnShop {
  const shop = {} as OwnShop;
  beforeAll(async () => {
    shop.database = await (options.empty || options.demo === 'full' ? freshDatabase() : demoDatabase());
    shop.server = await startServer(shop.database.url, options);
    shop.screen = await openBrowser();
  });
  afterAll(async () => {
    await shop.screen.close();
    await shop.server.stop();
    await shop.database.drop();
  });
  return shop;
}
