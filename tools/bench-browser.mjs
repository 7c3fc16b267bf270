// What ./jubb bench measures in a real browser.
import { performance } from 'node:perf_hooks';
import { v7 as uuid } from 'uuid';
import { launchBrowser } from './browser.mjs';
import { logIn } from './demo-shop.mjs';
import { bookHub, workUntil } from './demo-work.mjs';
import { median, share } from './figures.mjs';

async function logInAt(page) {
  await page.waitForSelector('#login');
  await page.type('#login', 'ilka');
  await page.type('#password', 'bench-417');
  await page.keyboard.press('Enter');
}

/** Time the list takes to answer a letter typed over many sheets: the work of the page, against one frame of 16.7 ms. */
export async function letterTyped(base, sheets) {
  const { browser, close } = await launchBrowser();
  try {
    const page = await browser.newPage();
    await page.goto(`${base}/sheets`);
    await logInAt(page);
    await page.waitForSelector('#find-sheet');
    await page.waitForFunction(() => document.querySelectorAll('tbody tr').length > 0);
    await page.evaluate(() => {
      window.frames_ = [];
      new PerformanceObserver((seen) => window.frames_.push(...seen.getEntries().map(({ duration }) => duration))).observe({
        type: 'longtask',
      });
    });
    const times = [];
    for (const letter of 'm12x1.25 askvale ph80') {
      const began = await page.evaluate(() => performance.now());
      await page.keyboard.type(letter);
      times.push(
        (await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => setTimeout(() => done(performance.now())))))) - began,
      );
    }
    const long = await page.evaluate(() => window.frames_);
    return {
      what: `a letter typed in the list of ${sheets} sheets until it is drawn, the wire to the browser included; tasks over 50 ms: ${long.length}`,
      ours: `${median(times).toFixed(1)} ms`,
      aim: 'a frame',
    };
  } finally {
    await close();
  }
}

/** What a browser that was never here loads until Today stands, as its bodies came over the wire. */
export async function firstScreen(base) {
  const { browser, close } = await launchBrowser();
  try {
    const page = await browser.newPage();
    const wire = await page.createCDPSession();
    await wire.send('Network.enable');
    const types = new Map();
    const sizes = {};
    wire.on('Network.responseReceived', ({ requestId, type }) => types.set(requestId, type));
    // Bodies as they came, compressed; without the headers.
    wire.on('Network.dataReceived', ({ requestId, encodedDataLength }) => {
      const type = types.get(requestId) ?? 'Other';
      sizes[type] = (sizes[type] ?? 0) + encodedDataLength;
    });
    await page.goto(base);
    await logInAt(page);
    await page.waitForSelector('.line-row');
    await page.evaluate(() => document.fonts.ready);
    const total = Object.values(sizes).reduce((sum, size) => sum + size, 0);
    const kB = (size) => `${(size / 1000).toFixed(0)} kB`;
    return {
      what: `first screen, gzip (${Object.entries(sizes)
        .map(([type, size]) => `${type.toLowerCase()} ${kB(size)}`)
        .join(', ')})`,
      ours: kB(total),
      aim: 'at most 190 kB',
    };
  } finally {
    await close();
  }
}

/** How much slower than this machine a tablet is. */
const SLOWER = 4;
const JOBS = 4;
const PRESSES = 60;
const DIGITS = ['1', '2', '3', '4', '5', '6', '7', '8', '9'];

/** Times from the press of a key until what it changed is painted; runs in the page. */
function watchPresses(keys = ['PageDown'], attributes = false) {
  window.presses_ = [];
  window.addEventListener(
    'keydown',
    ({ timeStamp, key }) => {
      if (!keys.includes(key)) return;
      const seen = new window.MutationObserver(() => {
        seen.disconnect();
        // The frame that shows it is done when the task after it runs.
        requestAnimationFrame(() => {
          const { port1, port2 } = new window.MessageChannel();
          port1.onmessage = () => window.presses_.push(performance.now() - timeStamp);
          port2.postMessage(0);
        });
      });
      seen.observe(document.body, { subtree: true, childList: true, characterData: true, attributes });
    },
    { capture: true },
  );
}

async function pressed(page, count, key = 'PageDown') {
  await page.keyboard.press(key);
  await page.waitForFunction((wanted) => window.presses_.length >= wanted, { polling: 20 }, count);
}

/** The key of the act that stands first: the pedal, or the first of what is asked. */
async function firstKey(page) {
  const key = await page.$eval('.bench-keep kbd', (sign) => sign.innerText);
  return key === 'Space' ? 'PageDown' : key;
}

/** A step ticked until the next is painted, on a browser four times as slow, against a page that swaps a text. */
export async function stepToStep(base) {
  const call = await logIn(base, 'ilka');
  const { browser, close } = await launchBrowser();
  try {
    const bare = await browser.newPage();
    await bare.setContent('<h1>Step 0</h1>');
    await bare.evaluate(watchPresses);
    await bare.evaluate(() => {
      let step = 0;
      window.addEventListener('keydown', () => {
        step += 1;
        document.querySelector('h1').textContent = `Step ${step}`;
      });
    });
    await bare.emulateCPUThrottling(SLOWER);
    for (let count = 1; count <= PRESSES; count += 1) await pressed(bare, count);
    const swaps = await bare.evaluate(() => window.presses_);
    await bare.close();

    const page = await browser.newPage();
    await page.goto(base);
    await logInAt(page);
    await page.waitForSelector('.line-row');
    const steps = [];
    for (let job = 0; job < JOBS; job += 1) {
      const id = await hubToStrip(call, `Timed ${job}`);
      await page.emulateCPUThrottling(1);
      await page.goto(`${base}/bench/${id}`);
      await page.waitForSelector('.bench-keep .btn-primary');
      await page.evaluate(watchPresses, ['PageDown', ...DIGITS]);
      await page.emulateCPUThrottling(SLOWER);
      for (let count = 1; count <= PRESSES / JOBS; count += 1) await pressed(page, count, await firstKey(page));
      steps.push(...(await page.evaluate(() => window.presses_)));
    }
    const [ours, theirs] = [median(steps), median(swaps)];
    return {
      what: `a step ticked until the next is painted, ${SLOWER}× slower CPU; 95 of 100 within ${share(steps, 0.95).toFixed(0)} ms, the page that swaps a text ${share(swaps, 0.95).toFixed(0)} ms`,
      ours: `${ours.toFixed(1)} ms`,
      bare: `${theirs.toFixed(1)} ms`,
      ratio: ours / theirs,
      aim: 'at most 3',
    };
  } finally {
    await close();
  }
}

/** Seals whose drawing follows what is typed: the working, its field, and what stands there before. */
const DRAWN = [
  ['oring.check', 'section', '2.65'],
  ['seal.wear-track', 'worn', '0.4'],
  ['gasket.make', 'margin', '12.'],
  ['seal.face-compression', 'neutral', '120.'],
];
const FIGURES = 30;

async function typeOver(page, id, text) {
  await page.focus(`#${id}`);
  await page.keyboard.down('Control');
  await page.keyboard.press('a');
  await page.keyboard.up('Control');
  await page.keyboard.type(text);
}

/** A figure typed until the drawing of its seal is painted, on a browser four times as slow, against a field that copies it to a text. */
export async function sealDrawn(base) {
  const { browser, close } = await launchBrowser();
  const typed = async (page) => {
    await page.evaluate(watchPresses, DIGITS, true);
    await page.emulateCPUThrottling(SLOWER);
    for (let count = 1; count <= FIGURES; count += 1) {
      await pressed(page, count, DIGITS[count % DIGITS.length]);
      await page.keyboard.press('Backspace');
    }
    return page.evaluate(() => window.presses_);
  };
  try {
    const bare = await browser.newPage();
    await bare.setContent('<input id="field" /><p></p>');
    await bare.evaluate(() => {
      const field = document.querySelector('#field');
      field.addEventListener('input', () => void (document.querySelector('p').textContent = field.value));
      field.focus();
    });
    const swaps = await typed(bare);
    await bare.close();
    const page = await browser.newPage();
    await page.goto(base);
    await logInAt(page);
    await page.waitForSelector('.line-row');
    const drawings = [];
    for (const [working, name, before] of DRAWN) {
      await page.emulateCPUThrottling(1);
      await page.goto(`${base}/workings/${working}`);
      await page.waitForSelector('.drawing svg');
      // The example stands there in grey; typed it is a reading.
      const grey = await page.$$eval('form.work [placeholder]', (fields) => fields.map(({ id, placeholder }) => [id, placeholder]));
      for (const [id, text] of grey) {
        if (id === `in-${name}` || text === '') continue;
        await typeOver(page, id, text);
      }
      await typeOver(page, `in-${name}`, before);
      await page.waitForSelector('.drawing svg');
      drawings.push(...(await typed(page)));
    }
    const [ours, theirs] = [median(drawings), median(swaps)];
    return {
      what: `a figure typed until the drawing of its seal is painted, ${SLOWER}× slower CPU; 95 of 100 within ${share(drawings, 0.95).toFixed(0)} ms, a field that copies a text ${share(swaps, 0.95).toFixed(0)} ms`,
      ours: `${ours.toFixed(1)} ms`,
      bare: `${theirs.toFixed(1)} ms`,
      ratio: ours / theirs,
      aim: 'at most 3',
    };
  } finally {
    await close();
  }
}

const [FEW, MANY] = [30, 300];
const OPENINGS = 7;

/** A job page until its act can be done, with many entries against with few, on a browser four times as slow. */
export async function manyEntries(base) {
  const call = await logIn(base, 'ilka');
  const jobs = [];
  for (const count of [FEW, MANY]) {
    const id = await hubToStrip(call, `With ${count} entries`);
    const { entries } = await call('GET', `/jobs/${id}`);
    const notes = Array.from({ length: Math.max(0, count - entries.length) }, (_, index) => ({
      id: uuid(),
      kind: 'note',
      takenAt: new Date().toISOString(),
      payload: { text: `Seen ${index}` },
    }));
    for (let at = 0; at < notes.length; at += 50) await call('POST', `/jobs/${id}/entries`, { entries: notes.slice(at, at + 50) });
    jobs.push({ id, times: [] });
  }
  const { browser, close } = await launchBrowser();
  try {
    const page = await browser.newPage();
    await page.goto(base);
    await logInAt(page);
    await page.waitForSelector('.line-row');
    await page.emulateCPUThrottling(SLOWER);
    for (let opening = 0; opening < OPENINGS; opening += 1)
      for (const { id, times } of jobs) {
        const began = performance.now();
        await page.goto(`${base}/jobs/${id}/strip`, { waitUntil: 'domcontentloaded' });
        await page.waitForSelector('.act-due .btn-primary');
        // What the first picture began is over when the page has nothing to do.
        await page.evaluate(() => new Promise((done) => window.requestIdleCallback(done)));
        times.push(performance.now() - began);
      }
    const [few, many] = jobs.map(({ times }) => median(times));
    return {
      what: `a job page with ${MANY} entries until its act can be done, against one with ${FEW}, ${SLOWER}× slower CPU`,
      ours: `${many.toFixed(0)} ms`,
      bare: `${few.toFixed(0)} ms`,
      ratio: many / few,
      aim: 'at most 1.3',
    };
  } finally {
    await close();
  }
}

/** A hub at the beginning of its strip. */
async function hubToStrip(call, name) {
  const id = await bookHub(call, name);
  await workUntil(call, id, (act) => act.stage === 'strip' && act.step !== undefined);
  return id;
}

const ENTRIES = 2000;

/** Memory of a bench view over 2 000 lines of one ledger, and what the last of them take to be shown against the first. */
export async function memoryOfAStrip(base) {
  const id = await hubToStrip(await logIn(base, 'ilka'), 'Two thousand lines');
  const { browser, close } = await launchBrowser();
  try {
    const page = await browser.newPage();
    await page.goto(`${base}/bench/${id}`);
    await logInAt(page);
    await page.waitForSelector('.bench h1');
    await page.keyboard.press('l');
    await page.waitForSelector('.modal input');
    await page.type('.modal input', 'washer');
    await page.keyboard.press('Enter');
    await page.waitForFunction(() =>
      [...document.querySelectorAll('.modal button')].some(({ innerText }) => innerText.startsWith('Same again')),
    );
    const wire = await page.createCDPSession();
    const heap = async () => {
      await page.waitForFunction(() => document.querySelector('.bench [role="status"]').innerText === 'live', { timeout: 120_000 });
      await wire.send('HeapProfiler.collectGarbage');
      return (await wire.send('Runtime.getHeapUsage')).usedSize;
    };
    const add = (count) =>
      page.evaluate(async (lines) => {
        const again = [...document.querySelectorAll('.modal button')].find(({ innerText }) => innerText.startsWith('Same again'));
        const times = [];
        for (let line = 0; line < lines; line += 1) {
          const began = performance.now();
          again.click();
          await new Promise((done) => requestAnimationFrame(() => setTimeout(done)));
          times.push(performance.now() - began);
        }
        return times;
      }, count);
    const first = await add(ENTRIES / 4);
    const early = await heap();
    await add(ENTRIES / 2);
    const last = await add(ENTRIES / 4);
    const late = await heap();
    const bytes = (late - early) / (ENTRIES * 0.75);
    return [
      {
        what: `memory of bench view, ${ENTRIES} lines in one ledger: for each line after the first quarter (an entry kept with its two hashes is some 1 kB)`,
        ours: `${(bytes / 1000).toFixed(1)} kB`,
        aim: 'at most 4 kB',
      },
      {
        what: `a line shown in a ledger of ${ENTRIES}, against one in a short ledger`,
        ours: `${median(last).toFixed(1)} ms`,
        bare: `${median(first).toFixed(1)} ms`,
        ratio: median(last) / median(first),
        aim: 'reported',
      },
    ];
  } finally {
    await close();
  }
}
