import { describe, expect, test } from '@jest/globals';
import { SERIAL_DRIVERS, type LinePort, type SentReading } from './serial-drivers.ts';

const GONE = 'the port is gone';

/** What was heard of a driver at a port where each question has its answers, in order; it is gone when nothing more is to be said. */
async function heardOf(
  driver: keyof typeof SERIAL_DRIVERS,
  says: (question: string | undefined) => readonly string[] | undefined,
): Promise<{
  readonly readings: readonly SentReading[];
  readonly troubles: readonly (string | undefined)[];
  readonly isA: string | undefined;
  readonly asked: readonly string[];
}> {
  const [readings, troubles, asked]: [SentReading[], (string | undefined)[], string[]] = [[], [], []];
  let isA: string | undefined;
  let lines = [...(says(undefined) ?? [])];
  const port: LinePort = {
    next: async (within) => {
      const line = lines.shift();
      if (line !== undefined || within !== undefined) return line;
      throw new Error(GONE);
    },
    say: async (question) => {
      asked.push(question);
      const answer = says(question);
      if (!answer) throw new Error(GONE);
      lines = [...lines, ...answer];
    },
  };
  const heard = {
    reading: (reading: SentReading) => void readings.push(reading),
    isA: (words: string) => void (isA = words),
    trouble: (words: string | undefined) => void troubles.push(words),
  };
  await expect(SERIAL_DRIVERS[driver].run(port, heard)).rejects.toThrow(GONE);
  return { readings, troubles, isA, asked };
}

test('what sends lines by itself is read line by line; what is no reading is told, and the next one is well again', async () => {
  const { readings, troubles } = await heardOf('text', (question) =>
    question === undefined ? ['+0012.34 mm', 'hello', '12,36'] : undefined,
  );
  expect(readings).toEqual([
    { value: 12.34, unit: 'mm', taken: true },
    { value: 12.36, taken: true },
  ]);
  expect(troubles).toEqual([undefined, expect.stringContaining('It sent "hello", which is no reading'), undefined]);
});

describe('a meter that answers SCPI', () => {
  /** Answers so many readings, and is gone. */
  const meter = (answers: readonly (string | undefined)[], unit = '"VOLT:DC"') => {
    const left = [...answers];
    return (question: string | undefined): readonly string[] | undefined => {
      if (question === undefined || question === '*CLS') return [];
      if (question === '*IDN?') return ['BENCH,METER 5,0417,1.2'];
      if (question === 'FUNC?') return [unit];
      if (left.length === 0) return undefined;
      const answer = left.shift();
      return answer === undefined ? [] : [answer];
    };
  };

  test('says what it is, in which unit it reads, and its figures; nothing of it is taken by itself', async () => {
    const { readings, isA, asked } = await heardOf('scpi', meter(['+1.40200E+01', '+1.40300E+01']));
    expect(isA).toBe('BENCH,METER 5,0417,1.2');
    expect(readings).toEqual([
      { value: 14.02, unit: 'V', taken: false },
      { value: 14.03, unit: 'V', taken: false },
    ]);
    expect(asked).toEqual(['*CLS', '*IDN?', 'FUNC?', 'READ?', 'READ?', 'READ?']);
  });

  test('past its range it has no figure; no answer, and one that is no figure, are told', async () => {
    const { readings, troubles } = await heardOf('scpi', meter(['9.9E37', undefined, '9.91E37', '+2.0E+3'], 'RES'));
    expect(readings).toEqual([
      { unit: 'Ω', taken: false },
      { value: 2000, unit: 'Ω', taken: false },
    ]);
    expect(troubles).toEqual([undefined, expect.stringContaining('does not answer'), expect.stringContaining('"9.91E37"'), undefined]);
  });

  test('an answer that comes too late answers nothing any more', async () => {
    let count = 0;
    const { readings } = await heardOf('scpi', (question) => {
      if (question === undefined || question === '*CLS') return [];
      if (question === '*IDN?') return ['METER', 'late'];
      if (question === 'FUNC?') return ['VOLT', '77'];
      count += 1;
      return count > 1 ? undefined : ['5'];
    });
    expect(readings).toEqual([{ value: 5, unit: 'V', taken: false }]);
  });
});
