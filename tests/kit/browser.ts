import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { AxeResults } from 'axe-core';
import type { Browser, CDPSession, KeyInput, Page } from 'puppeteer-core';
import { launchBrowser } from '../../tools/browser.mjs';

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
const MOST_TABS = 120;
/** A busy machine is slow, not wrong. */
const PATIENCE_MS = 60_000;

const CONTROLS = 'a, button, input, select, textarea, summary, [tabindex], [contenteditable]';

declare global {
  interface Window {
    /** In the page: what `nameOf` says. */
    nameOf(element: Element | null): string;
    /** In the page: how many answers its own code waits for, and since when that is so, in ms of its clock. */
    asking: { count: number; since: number };
    /** In the page: begins the worker that was held back. */
    beginWorker?: () => Promise<void>;
  }
}

/** Counts in the page what its code asks for; a document begins at none, which a count kept outside does not see. */
function countAsking(): void {
  const asking = { count: 0, since: performance.now() };
  window.asking = asking;
  const { fetch } = window;
  const counted = (by: number): void => {
    asking.count += by;
    asking.since = performance.now();
  };
  window.fetch = async (...asked) => {
    counted(1);
    try {
      return await fetch(...asked);
    } finally {
      counted(-1);
    }
  };
}

/** Holds back the worker that keeps all of the application on the tablet, which only a test without a link needs, until it is asked for. */
function holdBackWorker(): void {
  const workers = navigator.serviceWorker as ServiceWorkerContainer | undefined;
  if (!workers) return;
  const register = workers.register.bind(workers);
  workers.register = (...asked) =>
    new Promise((resolve, reject) => {
      window.beginWorker = () => register(...asked).then(resolve, reject);
    });
}

/** Name of a control, near enough as a screen reader says it. */
function nameOf(element: Element | null): string {
  if (!element || element === document.body) return '';
  const { labels, innerText = '' } = element as HTMLInputElement;
  return (element.getAttribute('aria-label') ?? labels?.[0]?.innerText ?? innerText).trim().replaceAll(/\s+/gu, ' ');
}

export interface Screen {
  readonly browser: Browser;
  close(): Promise<void>;
}

export function openBrowser(): Promise<Screen> {
  return launchBrowser() as Promise<Screen>;
}

/** A person who has a keyboard and eyes, and nothing else. */
export class Hand {
  readonly page: Page;
  /** How much was pressed so far: keys, those of them that do something (Enter and the bar), and letters typed. */
  readonly pressed = { keys: 0, acts: 0, letters: 0 };
  /** A finger alone has none: what is pressed all the same is refused. */
  hasKeys = true;
  readonly #base: string;
  /** To the service workers whose network was taken. */
  #wires: readonly CDPSession[] = [];

  private constructor(page: Page, base: string) {
    this.page = page;
    this.#base = base;
  }

  /** With `keeps`, the tablet keeps the application and what is read from the first page on; else from when its link is first cut. */
  static async at(browser: Browser, base: string, path = '/', { keeps = false } = {}): Promise<Hand> {
    const context = await browser.createBrowserContext();
    const page = await context.newPage();
    page.setDefaultTimeout(PATIENCE_MS);
    await page.setViewport({ width: 1280, height: 800 });
    await page.evaluateOnNewDocument(`window.nameOf = ${nameOf.toString()}`);
    await page.evaluateOnNewDocument(countAsking);
    if (!keeps) await page.evaluateOnNewDocument(holdBackWorker);
    const hand = new Hand(page, base);
    await hand.go(path);
    return hand;
  }

  async go(path: string): Promise<void> {
    await this.page.goto(`${this.#base}${path}`, { waitUntil: 'load' });
  }

  async logIn(login: string, password = 'bench-417'): Promise<void> {
    await this.sees('Who is working?');
    await this.type(login);
    await this.press('Tab');
    await this.type(password);
    await this.press('Enter');
    await this.page.waitForSelector('.topbar, .bench');
  }

  async press(...keys: KeyInput[]): Promise<void> {
    if (!this.hasKeys) throw new Error('a finger has no keys');
    for (const key of keys) {
      this.pressed.keys += 1;
      if (key === 'Enter' || key === 'Space') this.pressed.acts += 1;
      // Down and up go off together, in their order.
      await Promise.all([this.page.keyboard.down(key), this.page.keyboard.up(key)]);
    }
  }

  async type(text: string): Promise<void> {
    const { keyboard } = this.page;
    this.pressed.letters += text.length;
    const isKey = (letter: string): letter is KeyInput => /[\x20-\x7e]/u.test(letter);
    await Promise.all(
      [...text].flatMap((letter) => (isKey(letter) ? [keyboard.down(letter), keyboard.up(letter)] : [keyboard.sendCharacter(letter)])),
    );
  }

  /** Waits until the words stand on the page. */
  async sees(words: string): Promise<void> {
    try {
      await this.page.waitForFunction((wanted) => document.body.innerText.includes(wanted), { polling: 60 }, words);
    } catch {
      throw new Error(`"${words}" does not appear; the page says:\n${await this.text()}`);
    }
  }

  /** Waits until the page has asked for nothing for so long; its open stream is none of it. */
  async settles(quietMs = 300): Promise<void> {
    await this.page.waitForFunction((quiet) => window.asking.count === 0 && performance.now() - window.asking.since > quiet, {}, quietMs);
  }

  /** Waits until the heading of the page begins with the words. */
  async heads(words: string): Promise<void> {
    try {
      await this.page.waitForFunction(
        (wanted) => [...document.querySelectorAll('h1')].some((heading) => heading.innerText.startsWith(wanted)),
        { polling: 60 },
        words,
      );
    } catch {
      throw new Error(`no heading "${words}"; the page says:\n${await this.text()}`);
    }
  }

  /** Takes the network from this tablet, its service worker too, or gives it back. */
  async cut(isCut: boolean): Promise<void> {
    // What a page needs without a link is on the tablet once its service worker is ready.
    if (isCut) {
      await this.page.evaluate(async () => {
        await window.beginWorker?.();
        delete window.beginWorker;
        await navigator.serviceWorker?.ready;
      });
    }
    await this.page.setOfflineMode(isCut);
    if (this.#wires.length === 0) {
      const targets = this.page.browser().targets();
      const workers = targets.filter((one) => one.type() === 'service_worker' && one.browserContext() === this.page.browserContext());
      this.#wires = await Promise.all(workers.map((worker) => worker.createCDPSession()));
    }
    for (const wire of this.#wires) {
      await wire.send('Network.enable');
      await wire.send('Network.emulateNetworkConditions', { offline: isCut, latency: 0, downloadThroughput: -1, uploadThroughput: -1 });
    }
  }

  text(): Promise<string> {
    return this.page.evaluate(() => document.body.innerText);
  }

  /** Goes by Tab to the control whose name begins with the words, once it is on the page: nobody tabs through what is still loading. */
  async tabTo(name: string): Promise<void> {
    await this.#shows(name);
    await this.walkTo(name);
  }

  /** Goes by Tab to what has its name only once it is reached, as the cell of a table that is typed into. */
  async walkTo(name: string): Promise<void> {
    const seen: string[] = [];
    for (let tries = 0; tries < MOST_TABS; tries += 1) {
      const focused = await this.#focused();
      if (focused.startsWith(name)) return;
      seen.push(focused);
      await this.press('Tab');
    }
    throw new Error(`Tab does not reach "${name}"; it reaches: ${[...new Set(seen)].join(' | ')}`);
  }

  /** Replaces what stands in the field of that name. */
  async fill(name: string, text: string): Promise<void> {
    await this.tabTo(name);
    await this.page.keyboard.down('Control');
    await this.press('a');
    await this.page.keyboard.up('Control');
    await this.press('Delete');
    await this.type(text);
  }

  /** Puts a text into the field of a page that a selector names, at once, as pasting does. */
  async paste(selector: string, text: string): Promise<void> {
    await this.page.$eval(
      selector,
      (field, pasted) => {
        const area = field as HTMLTextAreaElement;
        // React hears only what comes by the field's own setter.
        Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value')!.set!.call(area, pasted);
        area.dispatchEvent(new Event('input', { bubbles: true }));
      },
      text,
    );
  }

  /** Presses the button or link of that name. */
  async use(name: string): Promise<void> {
    await this.tabTo(name);
    await this.press('Enter');
  }

  /** Goes by the arrows along the tabs under the act to the one of that name. */
  async tab(name: string): Promise<void> {
    await this.page.waitForSelector('.page-tabs .active');
    await this.page.focus('.page-tabs .active');
    for (let tries = 0; tries < 10; tries += 1) {
      if ((await this.#focused()).startsWith(name)) return;
      const before = await this.page.$eval('.page-tabs .active', (tab) => tab.id);
      await this.press('ArrowRight');
      await this.page.waitForFunction((id) => document.activeElement?.matches(`.page-tabs .active:not(#${id})`), {}, before);
    }
    throw new Error(`no tab "${name}"; the page says:\n${await this.text()}`);
  }

  /** Waits until a control of that name is on the page. */
  async #shows(name: string): Promise<void> {
    const isThere = (controls: string, wanted: string): boolean =>
      [...document.querySelectorAll<HTMLElement>(controls)].some((control) => window.nameOf(control).startsWith(wanted));
    try {
      await this.page.waitForFunction(isThere, { polling: 60 }, CONTROLS, name);
    } catch {
      throw new Error(`nothing to press or fill is called "${name}"; the page says:\n${await this.text()}`);
    }
  }

  #focused(): Promise<string> {
    return this.page.evaluate(() => window.nameOf(document.activeElement));
  }

  /** What axe finds against WCAG 2.2 AA, as lines; none is right. */
  async faults(): Promise<readonly string[]> {
    // A key that is just changing its colour has neither the one nor the other.
    await this.page.evaluate(async () => void (await Promise.allSettled(document.getAnimations().map(({ finished }) => finished))));
    // A list that scrolls within the page shows a row in part at its edge, as any does, and so does what lies under a strip
    // at its foot: all of it is looked at, and the strips where they stand by themselves.
    const show = (height: string, position: string): Promise<void> =>
      this.page.evaluate(
        (high, place) => {
          document.querySelector<HTMLElement>('.page-tab-body')?.style.setProperty('max-height', high);
          for (const strip of document.querySelectorAll<HTMLElement>('.key-bar, .act-due .step-keys'))
            strip.style.setProperty('position', place);
        },
        height,
        position,
      );
    await show('none', 'static');
    if (!(await this.page.evaluate(() => 'axe' in window))) await this.page.evaluate(AXE);
    const results = await this.page.evaluate(async () => {
      const { axe } = window as unknown as { axe: { run(context: Document, options: object): Promise<AxeResults> } };
      return axe.run(document, {
        runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'],
        resultTypes: ['violations'],
      });
    });
    await show('', '');
    return results.violations.flatMap(({ id, nodes }) => nodes.map((node) => `${id}: ${node.html} ${node.failureSummary ?? ''}`));
  }
}
