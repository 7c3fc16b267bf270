import type { Hand } from './browser.ts';

declare global {
  interface Window {
    port: {
      /** The instrument says so much. */
      say(text: string): void;
      /** A letter came in crippled: the stream ends with an error, and another one stands in its place. */
      cripple(): void;
      /** What it answers to a question; nothing where it is silent. */
      answers: Record<string, string>;
      draw(): void;
      plug(): void;
    };
  }
}

/**
 * Stands in for the ports of a tablet: the interface of the Web Serial API (WICG) as far as a page uses it. A port that was
 * chosen once is known after a reload, as a browser keeps it.
 */
export async function withPort(hand: Hand): Promise<void> {
  await hand.page.evaluateOnNewDocument(() => {
    const CHOSEN = 'stand-in-port';
    const serial = new EventTarget();
    let controller: ReadableStreamDefaultController<Uint8Array> | undefined;
    let isPlugged = true;
    let question = '';
    const stream = (): ReadableStream<Uint8Array> => new ReadableStream({ start: (made) => void (controller = made) });
    const port = {
      readable: null as ReadableStream<Uint8Array> | null,
      writable: null as WritableStream<Uint8Array> | null,
      getInfo: () => ({ usbVendorId: 0x41_70, usbProductId: 0x04_17 }),
      open: async ({ baudRate }: { readonly baudRate: number }) => {
        if (port.readable) throw new DOMException('The port is already open.', 'InvalidStateError');
        if (!(baudRate > 0)) throw new TypeError('baudRate');
        port.readable = stream();
        port.writable = new WritableStream({
          write: (chunk) => {
            question += new TextDecoder().decode(chunk);
            const asked = question.split('\n');
            question = asked.pop()!;
            for (const one of asked) if (window.port.answers[one] !== undefined) window.port.say(`${window.port.answers[one]}\n`);
          },
        });
        return Promise.resolve();
      },
      close: async () => {
        // As the standard has it: a stream that somebody still reads is not closed.
        if (port.readable?.locked) throw new TypeError('locked');
        port.readable = null;
        port.writable = null;
        return Promise.resolve();
      },
    };
    const choose = async (): Promise<typeof port> => {
      if (!isPlugged) throw new DOMException('No port selected by the user.', 'NotFoundError');
      localStorage.setItem(CHOSEN, 'yes');
      return Promise.resolve(port);
    };
    const known = async (): Promise<(typeof port)[]> => Promise.resolve(isPlugged && localStorage.getItem(CHOSEN) ? [port] : []);
    Object.defineProperty(navigator, 'serial', { value: Object.assign(serial, { requestPort: choose, getPorts: known }) });
    window.port = {
      answers: {},
      // A driver hands over what came, not whole lines.
      say: (text) => {
        for (const letter of text) controller!.enqueue(new TextEncoder().encode(letter));
      },
      cripple: () => {
        const before = controller!;
        port.readable = stream();
        before.error(new DOMException('A framing error was detected.', 'FramingError'));
      },
      draw: () => {
        isPlugged = false;
        port.readable = null;
        controller!.error(new DOMException('The device has been lost.', 'NetworkError'));
      },
      plug: () => {
        isPlugged = true;
        serial.dispatchEvent(new Event('connect'));
      },
    };
  });
  await hand.page.reload();
}
