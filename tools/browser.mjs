// Debian's Chromium, with everything off that would call home.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import puppeteer from 'puppeteer-core';

const QUIET = [
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  // The popups of an address bar that nobody sees are pages of their own, some two seconds of work for each window.
  '--disable-features=WebUIOmniboxPopup,WebUIOmniboxAimPopup,WebUIOmniboxFullPopup',
  '--disable-dev-shm-usage',
  '--font-render-hinting=none',
  '--lang=en-GB',
  // Several pages are watched at once: one behind another is no less in a hurry, on a busy machine too.
  '--disable-renderer-backgrounding',
  '--disable-background-timer-throttling',
  '--disable-backgrounding-occluded-windows',
  // A microphone and a camera that make a tone and a picture of their own.
  '--use-fake-device-for-media-stream',
  '--use-fake-ui-for-media-stream',
];

/** A browser with a fresh profile; `close` takes the profile away again. One that is piped is driven over no port. */
export async function launchBrowser({ executable = '/usr/bin/chromium', isPiped = false } = {}) {
  const profile = mkdtempSync(join(tmpdir(), 'jubb-chromium-'));
  const browser = await puppeteer.launch({
    executablePath: executable,
    pipe: isPiped,
    headless: true,
    userDataDir: profile,
    args: [...QUIET, ...(process.getuid?.() === 0 ? ['--no-sandbox'] : [])],
  });
  return {
    browser,
    close: async () => {
      await browser.close();
      rmSync(profile, { recursive: true, force: true, maxRetries: 5 });
    },
  };
}
