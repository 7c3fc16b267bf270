import { CLOCK_SLACK_MS, aheadMs } from '../link/client.ts';

/** What one thing of this tablet does, in words: what works, or what to do where it does not. */
export interface Checked {
  readonly isGood: boolean;
  readonly words: string;
}

/** Something that the bench needs of a tablet. */
interface TabletCheck {
  readonly what: string;
  /** Rejects where the browser refuses. */
  readonly run: () => Promise<Checked>;
  /** What is said where it rejects. */
  readonly refused: string;
}

const good = (words: string): Checked => ({ isGood: true, words });
const not = (words: string): Checked => ({ isGood: false, words });

async function sees(asked: MediaStreamConstraints): Promise<void> {
  const stream = await navigator.mediaDevices.getUserMedia(asked);
  for (const track of stream.getTracks()) track.stop();
}

/** In the order in which one hangs on the other: without https most of the rest is not there at all. */
export const TABLET_CHECKS: readonly TabletCheck[] = [
  {
    what: 'Link',
    refused: 'cannot be told',
    run: () =>
      Promise.resolve(
        window.isSecureContext
          ? good('nobody in between reads or changes what goes over it')
          : not('not by https: the browser gives no camera, no microphone, and keeps nothing for a lost link'),
      ),
  },
  {
    what: 'Without a link',
    refused: 'the browser keeps no pages here: trust the shop’s certificate first',
    run: async () => {
      if (!('serviceWorker' in navigator)) return not('this browser keeps no pages: entries wait on the page while it is open, no longer');
      const isReady = await Promise.race([
        navigator.serviceWorker.ready.then(() => true),
        new Promise<boolean>((resolve) => setTimeout(() => resolve(false), READY_MS)),
      ]);
      return isReady ? good('the application opens, and entries wait on the tablet') : not('not kept yet: open Today once, then try again');
    },
  },
  {
    what: 'Room',
    refused: 'the browser does not say',
    run: async () => {
      const isKept = (await navigator.storage.persisted()) || (await navigator.storage.persist());
      const { quota = 0, usage = 0 } = await navigator.storage.estimate();
      const words = `${Math.round((quota - usage) / 1e6)} MB for what waits`;
      return isKept ? good(words) : good(`${words}; a browser short of room may empty it: put the shop on the home screen`);
    },
  },
  {
    what: 'Camera',
    refused: 'not allowed or not there: a photo can be brought in as a file',
    run: async () => {
      await sees({ video: { facingMode: 'environment' } });
      return good('photos at the step');
    },
  },
  {
    what: 'Microphone',
    refused: 'not allowed or not there: what is said is typed instead',
    run: async () => {
      await sees({ audio: true });
      return good('a word is kept while its key is held');
    },
  },
  {
    what: 'Screen',
    refused: 'goes dark by itself: set it to stay on in the tablet’s own settings',
    run: async () => {
      const lock = await navigator.wakeLock.request('screen');
      await lock.release();
      return good('stays on at the bench');
    },
  },
  {
    what: 'Clock',
    refused: 'cannot be told',
    run: () => {
      const minutes = Math.round(Math.abs(aheadMs()) / 60_000);
      return Promise.resolve(
        Math.abs(aheadMs()) <= CLOCK_SLACK_MS
          ? good('goes with the shop’s')
          : not(
              `${minutes} minutes ${aheadMs() > 0 ? 'fast' : 'slow'}: let the tablet set it by itself; until then entries go by the shop’s clock`,
            ),
      );
    },
  },
  {
    what: 'Instruments',
    refused: 'cannot be told',
    run: () =>
      Promise.resolve(
        'serial' in navigator
          ? good('one that is plugged in can be read by this browser')
          : good('none can be plugged in here: those that send by themselves, or type like a keyboard, work all the same'),
      ),
  },
];

/** What keeps pages is there by then, or is not. */
const READY_MS = 3000;
