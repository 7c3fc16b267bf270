import { readScpiNumber, readTextLine, scpiUnit, type SentFigure } from '@jubb/core';

/** A port by the line: what the other end says, one after the other, and what it is told. */
export interface LinePort {
  /** The next line that is not empty; nothing where none came in so long. Throws where the port is gone. */
  next(withinMs?: number): Promise<string | undefined>;
  say(line: string): Promise<void>;
}

/** A reading as it goes to the bench; one without a figure was past the range. */
export interface SentReading extends Partial<SentFigure> {
  /** Somebody pressed its key: to be taken. */
  readonly taken: boolean;
}

/** What is heard of an instrument while its port is open. */
export interface Heard {
  reading(reading: SentReading): void;
  /** What it says it is. */
  isA(words: string): void;
  /** Why nothing comes, or that all is well again. */
  trouble(words: string | undefined): void;
}

/** A way in which instruments talk at a port. */
export interface SerialDriver {
  readonly name: string;
  /** Bits a second that most of its kind come with. */
  readonly speed: number;
  /** Listens until the port is gone. */
  run(port: LinePort, heard: Heard): Promise<never>;
}

const ANSWERS_MS = 2000;
const BEAT_MS = 400;
/** What it is switched to is asked every so many readings: somebody turns its knob. */
const FUNCTION_EVERY = 5;
const MOST_SHOWN = 40;

const cut = (line: string): string => line.slice(0, MOST_SHOWN);

export const SERIAL_DRIVERS = {
  text: {
    name: 'a line of text at the press of its key',
    speed: 9600,
    async run(port, heard) {
      for (;;) {
        const line = (await port.next()) ?? '';
        const figure = readTextLine(line);
        if (figure) {
          heard.trouble(undefined);
          heard.reading({ ...figure, taken: true });
        } else heard.trouble(`It sent "${cut(line)}", which is no reading: a figure is due, such as 12.34 mm. Is the speed right?`);
      }
    },
  },
  scpi: {
    name: 'answers SCPI, as bench meters do',
    speed: 9600,
    async run(port, heard) {
      const ask = async (question: string): Promise<string | undefined> => {
        // An answer that came too late answers nothing any more.
        while ((await port.next(0)) !== undefined);
        await port.say(question);
        return port.next(ANSWERS_MS);
      };
      // Whatever it was asked before, by somebody else, is forgotten.
      await port.say('*CLS');
      const named = await ask('*IDN?');
      if (named !== undefined) heard.isA(cut(named));
      let unit: string | undefined;
      for (let count = 0; ; count += 1) {
        if (count % FUNCTION_EVERY === 0) unit = scpiUnit((await ask('FUNC?')) ?? '') ?? unit;
        const answer = await ask('READ?');
        const value = answer === undefined ? undefined : readScpiNumber(answer);
        if (answer === undefined) heard.trouble('It does not answer. Is it on, is the speed right, is it set to be asked from outside?');
        else if (value === undefined) heard.trouble(`It answered "${cut(answer)}", which is no figure`);
        else {
          heard.trouble(undefined);
          heard.reading({ ...(value === 'over' ? {} : { value }), ...(unit === undefined ? {} : { unit }), taken: false });
        }
        await new Promise((resolve) => setTimeout(resolve, BEAT_MS));
      }
    },
  },
} as const satisfies Readonly<Record<string, SerialDriver>>;

export type DriverName = keyof typeof SERIAL_DRIVERS;
