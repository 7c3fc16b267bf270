import { expect, test } from '@jest/globals';
import { lastUndoable, letStand, offerUndo, onUndoable } from './undo.ts';

test('the last act alone can be taken back, until it is let stand', async () => {
  const heard: (string | undefined)[] = [];
  const off = onUndoable(() => heard.push(lastUndoable()?.words));
  let back = '';
  offerUndo('one', async () => void (back += '1'));
  offerUndo('two', async () => void (back += '2'));
  await lastUndoable()?.undo();
  letStand();
  off();
  offerUndo('three', async () => undefined);
  expect(back).toBe('2');
  expect(heard).toEqual(['one', 'two', undefined]);
  letStand();
  expect(lastUndoable()).toBeUndefined();
});
