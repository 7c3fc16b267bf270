import { expect, test } from '@jest/globals';
import { ok, refuse, wording, type Issue } from './issues.js';

/** Every kind of mistake: what was given, and what would be right. */
test.each<readonly [Issue, string]>([
  [{ code: 'required', field: 'bore', label: 'Bore', quantity: 'length' }, 'Bore: is missing; give a length'],
  [{ code: 'required', field: 'bore' }, 'bore: is missing'],
  [{ code: 'required', field: 'turn', label: 'Turn', quantity: 'angle' }, 'Turn: is missing; give an angle'],
  [
    { code: 'not-a-figure', field: 'a', label: 'Torque', received: 'tight', quantity: 'torque' },
    'Torque: "tight" is not a figure; give a number with or without its unit (N·m, N·cm, lbf·ft, lbf·in)',
  ],
  [{ code: 'not-a-figure', field: 'a', label: 'Count', received: 'few' }, 'Count: "few" is not a figure; give a number'],
  [
    { code: 'ambiguous-number', field: 'a', label: 'Play', received: '1.0,5' },
    'Play: "1.0,5" has more than one decimal sign; use one comma or one point',
  ],
  [{ code: 'not-finite', field: 'a', label: 'Play', received: 'Infinity' }, 'Play: "Infinity" is not a finite number'],
  [{ code: 'too-small', field: 'a', label: 'Slots', received: '0', bound: '1' }, 'Slots: "0" is too small; the least allowed is 1'],
  [{ code: 'too-large', field: 'a', label: 'Slots', received: '99', bound: '24' }, 'Slots: "99" is too large; the most allowed is 24'],
  [{ code: 'not-whole', field: 'a', label: 'Slots', received: '6.5' }, 'Slots: "6.5" is not a whole number'],
  [{ code: 'not-a-choice', field: 'a', label: 'Class', received: '9.9', bound: '8.8, 10.9' }, 'Class: "9.9" is not one of: 8.8, 10.9'],
  [{ code: 'too-few', field: 'a', label: 'Gaps', received: '2', bound: '3' }, 'Gaps: has 2; at least 3 are needed'],
  [{ code: 'too-many', field: 'a', label: 'Gaps', received: '13', bound: '12' }, 'Gaps: has 13; at most 12 are allowed'],
  [{ code: 'unknown-field', field: 'hue', bound: 'play, pitch' }, 'hue: is not known here; the fields are: play, pitch'],
  [
    { code: 'window-upside-down', field: 'to', label: 'To', received: '0.1 mm', bound: '0.2 mm' },
    'To: "0.1 mm" is below the lower end 0.2 mm',
  ],
  [{ code: 'limit-missing', field: 'lower', label: 'Limits' }, 'Limits: needs a lower limit, an upper limit, or both'],
  [
    { code: 'aim-outside', field: 'aim', label: 'Aim', received: '1 mm', bound: '0 to 0.5 mm' },
    'Aim: "1 mm" is outside the window 0 to 0.5 mm',
  ],
  [{ code: 'points-in-line', field: 'p', label: 'Points' }, 'Points: lie in one line; three that do not are needed for a plane'],
  [{ code: 'said-twice', field: 'a', label: 'Thickness', received: '0.1 mm' }, 'Thickness: "0.1 mm" is said twice'],
  [
    { code: 'not-a-thread', field: 'a', label: 'Thread', received: 'M6 fine' },
    'Thread: "M6 fine" names no 60° thread; write it as M12x1.25, 1/2-20 UNF or #10-32',
  ],
  [
    { code: 'none-will-do', field: 'shelf', label: 'On the shelf', received: 'the shims', bound: '1.08 to 1.09 mm would be right' },
    'On the shelf: none of the shims will do: 1.08 to 1.09 mm would be right',
  ],
  [
    { code: 'under-its-leads', field: 'a', label: 'Reading', received: '0.1 Ω', bound: '0.2 Ω' },
    'Reading: "0.1 Ω" is less than its leads alone, 0.2 Ω',
  ],
  [
    { code: 'does-not-convert', field: 'a', label: 'Figure', received: '1 mm', bound: 'N·m' },
    'Figure: "1 mm" cannot be shown in N·m: the two measure different things',
  ],
  [{ code: 'cannot-be', field: 'a', label: 'Play', received: '-1 mm', bound: 'less than none' }, 'Play: "-1 mm" cannot be: less than none'],
  [
    { code: 'wrong-quantity', field: 'a', label: 'Torque', received: '5 mm', found: 'length', quantity: 'torque' },
    'Torque: "5 mm" is a length; a torque is asked (N·m, N·cm, lbf·ft, lbf·in)',
  ],
])('%j', (issue, words) => {
  expect(wording(issue)).toBe(words);
});

test('a result is a value or its mistakes, never both', () => {
  expect(ok(5)).toEqual({ ok: true, value: 5 });
  const issue: Issue = { code: 'required', field: 'bore' };
  expect(refuse(issue, issue)).toEqual({ ok: false, issues: [issue, issue] });
});
