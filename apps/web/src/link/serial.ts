import { ENDPOINTS } from '@jubb/wire';
import { v7 as uuid } from 'uuid';
import { readStored, writeStored } from '../kit/prefs.ts';
import { CABLES } from './cables-kept.ts';
import { LinkDown, Refusal, upload } from './client.ts';
import { SERIAL_DRIVERS, type DriverName, type LinePort, type SentReading } from './serial-drivers.ts';

/** What this tablet remembers of a cable, so that it is there again after a reload. */
export interface Cable {
  readonly instrumentId: string;
  /** Of a line that names none. */
  readonly unit: string;
  readonly driver: DriverName;
  readonly speed: number;
  /** What the browser tells of its plug. */
  readonly plug?: SerialPortInfo;
}

/** How a cable stands. */
export interface CableState {
  readonly isOpen: boolean;
  /** What the instrument says it is. */
  readonly isA?: string;
  readonly trouble?: string;
}

const LONGEST_LINE = 200;
const CLOSED: CableState = { isOpen: false };

let states: ReadonlyMap<string, CableState> = new Map();
const listeners = new Set<() => void>();
/** What is listened to, by its instrument. */
const open = new Map<string, { readonly port: SerialPort; readonly stop: () => Promise<void> }>();
/** Of which a port is being opened just now. */
const opening = new Set<string>();
let isWatching = false;

/** Whether this browser opens ports at all: by https or on this very machine, and not every one does. */
export function canSerial(): boolean {
  return 'serial' in navigator;
}

export function subscribeCables(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

export function cableState(instrumentId: string): CableState {
  return states.get(instrumentId) ?? CLOSED;
}

function say(instrumentId: string, change: Partial<Record<keyof CableState, unknown>>): void {
  const next = { ...cableState(instrumentId), ...change } as CableState;
  states = new Map([...states, [instrumentId, next]]);
  for (const listener of listeners) listener();
}

export function rememberedCables(): readonly Cable[] {
  const kept = readStored(CABLES);
  return kept === undefined ? [] : (JSON.parse(kept) as readonly Cable[]);
}

function remember(instrumentId: string, cable: Cable | undefined): void {
  const others = rememberedCables().filter((one) => one.instrumentId !== instrumentId);
  const all = cable ? [...others, cable] : others;
  writeStored(CABLES, all.length === 0 ? undefined : JSON.stringify(all));
}

/** Lets somebody choose the port, and listens to it from now on; nothing where they chose none. Throws where it cannot be opened. */
export async function plugIn(cable: Cable): Promise<void> {
  let port: SerialPort;
  try {
    port = await navigator.serial.requestPort();
  } catch (error) {
    // Nothing was chosen.
    if ((error as Error).name === 'NotFoundError') return;
    throw error;
  }
  await letGo(cable.instrumentId);
  watchPlugs();
  await listen(port, { ...cable, plug: port.getInfo() });
}

/** Closes the port; the tablet forgets it. */
export async function letGo(instrumentId: string): Promise<void> {
  remember(instrumentId, undefined);
  const listened = open.get(instrumentId);
  open.delete(instrumentId);
  await listened?.stop();
  say(instrumentId, { isOpen: false, isA: undefined, trouble: undefined });
}

/** Listens again to what this tablet listened to before, where it is plugged in. */
export async function resume(): Promise<void> {
  if (!canSerial()) return;
  watchPlugs();
  for (const cable of rememberedCables()) await again(cable);
}

/** What is plugged in again is listened to again. */
function watchPlugs(): void {
  if (isWatching) return;
  isWatching = true;
  navigator.serial.addEventListener('connect', () => {
    for (const cable of rememberedCables()) void again(cable);
  });
}

async function again(cable: Cable): Promise<void> {
  if (open.has(cable.instrumentId) || opening.has(cable.instrumentId)) return;
  opening.add(cable.instrumentId);
  try {
    await reopen(cable);
  } finally {
    opening.delete(cable.instrumentId);
  }
}

async function reopen(cable: Cable): Promise<void> {
  const known = await navigator.serial.getPorts();
  const isIt = (port: SerialPort): boolean => {
    const { usbVendorId, usbProductId } = port.getInfo();
    return usbVendorId === cable.plug?.usbVendorId && usbProductId === cable.plug?.usbProductId;
  };
  const port = known.find((one) => isIt(one) && ![...open.values()].some((other) => other.port === one));
  if (port) await listen(port, cable).catch(() => undefined);
  else say(cable.instrumentId, { isOpen: false, trouble: 'Its cable is not plugged in' });
}

/** Opens the port and hears the instrument until it is let go or drawn. */
async function listen(port: SerialPort, cable: Cable): Promise<void> {
  const { instrumentId, driver, speed } = cable;
  try {
    await port.open({ baudRate: speed });
  } catch (error) {
    const trouble = 'The port cannot be opened: does another program or page have it?';
    say(instrumentId, { isOpen: false, trouble });
    throw new Error(trouble, { cause: error });
  }
  const { lines, stop } = linesOf(port);
  open.set(instrumentId, { port, stop });
  remember(instrumentId, cable);
  say(instrumentId, { isOpen: true, isA: undefined, trouble: undefined });
  const heard = {
    reading: sender(cable),
    isA: (isA: string) => say(instrumentId, { isA }),
    trouble: (trouble: string | undefined) => say(instrumentId, { trouble }),
  };
  void SERIAL_DRIVERS[driver].run(lines, heard).catch(async () => {
    if (open.get(instrumentId)?.port !== port) return;
    open.delete(instrumentId);
    await stop();
    say(instrumentId, { isOpen: false, trouble: 'Its cable was drawn: plug it in again' });
  });
}

/**
 * Hands readings to the server, which holds them against the tool and gives them to the bench. One at a time, the newest of those
 * that only pass; nothing is held for later: a reading that comes minutes after it was taken would go into another field.
 */
function sender({ instrumentId, unit: own }: Cable): (reading: SentReading) => void {
  const run = uuid();
  let n = 0;
  let isBusy = false;
  const waiting: SentReading[] = [];
  const send = async ({ value, unit = own, taken }: SentReading): Promise<void> => {
    n += 1;
    const line = JSON.stringify({ n, run, unit, ...(value === undefined ? {} : { value }), ...(taken ? { taken } : {}) });
    try {
      const { refused } = await upload(ENDPOINTS.instruments.lines, { id: instrumentId }, 'application/x-ndjson', line);
      if (refused[0]) say(instrumentId, { trouble: `"${refused[0].given ?? ''}" ${refused[0].allowed}` });
    } catch (error) {
      const why = error instanceof LinkDown ? 'There is no link' : error instanceof Refusal ? error.problem.title : 'The server fails';
      say(instrumentId, { trouble: `${why}: what it sent was not taken. Type it, or send it again` });
    }
  };
  return (reading) => {
    // Of those that only pass, the newest is enough.
    if (!reading.taken && isBusy) return;
    waiting.push(reading);
    if (isBusy) return;
    isBusy = true;
    void (async () => {
      for (let next = waiting.shift(); next; next = waiting.shift()) await send(next);
      isBusy = false;
    })();
  };
}

/** An open port by the line, whatever ends them; and what closes it. */
function linesOf(port: SerialPort): { readonly lines: LinePort; readonly stop: () => Promise<void> } {
  const came: string[] = [];
  let reader: ReadableStreamDefaultReader<Uint8Array>;
  let rest = '';
  let isGone = false;
  let wake: () => void = () => undefined;
  const decoder = new TextDecoder();
  const read = async (): Promise<void> => {
    for (;;) {
      const { value, done } = await reader.read();
      if (done) return;
      const parts = (rest + decoder.decode(value, { stream: true })).split(/[\r\n]+/u);
      // What never ends is noise of another speed.
      rest = parts.pop()!.slice(-LONGEST_LINE);
      came.push(...parts.filter((part) => part.trim() !== ''));
      wake();
    }
  };
  const readOn = async (): Promise<void> => {
    let isStopped = false;
    let stream = port.readable;
    while (stream && !isStopped) {
      reader = stream.getReader();
      isStopped = await read().then(
        () => true,
        () => false,
      );
      reader.releaseLock();
      // A letter that came in crippled ends the stream, and not the port: another one stands in its place.
      stream = port.readable === stream ? null : port.readable;
    }
    isGone = true;
    wake();
  };
  const ended = readOn();
  const stop = async (): Promise<void> => {
    await reader.cancel().catch(() => undefined);
    await ended;
    await port.close().catch(() => undefined);
  };
  const lines: LinePort = {
    async next(withinMs) {
      const until = withinMs === undefined ? Number.POSITIVE_INFINITY : performance.now() + withinMs;
      for (;;) {
        const line = came.shift();
        if (line !== undefined) return line;
        if (isGone) throw new Error('The port is gone');
        const left = until - performance.now();
        if (left <= 0) return undefined;
        let timer: ReturnType<typeof setTimeout> | undefined;
        await new Promise<void>((resolve) => {
          wake = resolve;
          if (Number.isFinite(left)) timer = setTimeout(resolve, left);
        });
        clearTimeout(timer);
      }
    },
    async say(line) {
      if (!port.writable) throw new Error('The port is gone');
      const writer = port.writable.getWriter();
      try {
        await writer.write(new TextEncoder().encode(`${line}\n`));
      } finally {
        writer.releaseLock();
      }
    },
  };
  return { lines, stop };
}
