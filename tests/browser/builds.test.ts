import { expect, test } from '@jest/globals';
import type { Fastener, Fault } from '@jubb/core';
import { allKept, atJob, openBuild, reads, stateOf } from '../kit/at-job.ts';
import { paired } from '../kit/instrument.ts';
import { ownShop } from '../kit/shop.ts';

const shop = ownShop();

test('a drive axle: a fit measured after a slip of the decimal sign, a crushed sleeve told from one that is not, the cover screws after the skin', async () => {
  const { api, id, hand } = await atJob(shop, 'ostrel-d44-drive-axle', 'cups-in', 'build');
  const at = { hand, id };
  // The fit: a shaft that cannot be of this bore is refused, with what would be right.
  await hand.sees('Wanted');
  await hand.fill('Shaft d', '72,004');
  await hand.fill('Bore D', '7,1975');
  await hand.sees('a shaft of about the bore');
  await hand.fill('Bore D', '71,975');
  await hand.use('Keep these sizes');
  await hand.sees('Driver on the outer ring only');
  expect(await hand.faults()).toEqual([]);
  await hand.use('Driver and hammer');
  await hand.fill('Driver, tube or plate', 'Plate 71');
  await hand.fill('What shows that it is home', 'the note changed');
  await hand.use('It is home');
  await allKept(hand);
  expect((await stateOf(api, id)).fits[0]).toMatchObject({ verdict: 'in', fitted: { payload: { by: 'hand', driver: 'Plate 71' } } });

  // The sleeve: under the window it goes on by a working; over it nothing is turned back.
  await api.workTo(id, 'preload-set');
  await openBuild(at, 'Preload set');
  await hand.sees('Reading 1 of');
  await reads(hand, '0,4', '0,4', '0,4');
  await hand.sees('A crush sleeve: how much further now?');
  await hand.fill('Readings', '0 0.3\n30 0.8\n40 4.1');
  await hand.sees('new sleeve');
  await hand.fill('Readings', '0 0.3\n30 0.8\n40 1.2');
  await hand.sees('Turn on');
  await hand.use('Done so; now read it again');
  await allKept(hand);
  expect((await stateOf(api, id)).settings.find(({ setting }) => setting.ref === 'pinion-preload')).toMatchObject({
    phase: 'read-locked',
    worked: [{ payload: { working: 'bearing.crush-sleeve' } }],
  });

  // The cover: its wait begins by itself, and holds the screws until the skin is there.
  await api.workTo(id, 'cover-on');
  await openBuild(at, 'Cover on');
  await hand.use('Off, all of it');
  await hand.sees('The clock begins when the step is done');
  await hand.use('It is so');
  await hand.use('Whole, the right one');
  await hand.use('It lies that way');
  await hand.use('Laid, all round');
  await hand.sees('to go');
  await hand.sees('sealant to skin');
  await allKept(hand);
  expect((await stateOf(api, id)).clocks).toMatchObject([{ what: 'sealant to skin', step: 'cover-on' }]);
  await hand.use('It is ready now');
  await hand.sees('Cover screws, pass 1');
  // Out of its turn: it is kept as what it was, and what to do is said.
  await hand.use('Trouble');
  await hand.press('2');
  await hand.tabTo('Its number on the plate');
  await hand.press('4');
  await hand.use('Keep it');
  await hand.sees('Number 4 out of turn');
  await hand.sees('the next pass evens it out');
  await allKept(hand);
  expect((await stateOf(api, id)).joints.find(({ joint }) => joint.ref === 'cover-screws')).toMatchObject({ done: 1 });
});

test('the gears of a drive axle: pinion depth by its marks, shims of the carrier, backlash shifted from side to side after a rule that lacks its reading', async () => {
  const { api, id, hand } = await atJob(shop, 'ostrel-d44-drive-axle', 'side-shims-chosen', 'build');
  const at = { hand, id };
  await hand.tab('Workings');
  await hand.use('Which shim sets the pinion');
  await hand.fill('Shim now', '1,20 mm');
  await hand.fill('Mark of the old', '0,02 mm');
  await hand.fill('Mark of the new', '-0,01 mm');
  await hand.sees('the pinion goes deeper');
  await hand.use('Keep it on the job');
  await allKept(hand);
  await openBuild(at, 'Side shims chosen');
  await reads(hand, '0,32', '0,32');
  await hand.sees('Which shims, from what is on the shelf?');
  await hand.fill('Trial pack', '0,5 mm');
  await hand.fill('A thicker pack', 'closes');
  await hand.use('Done so; now read it again');
  await allKept(hand);
  await hand.go(`/jobs/${id}/build`);
  await hand.sees('Reading 1 of 2');
  await reads(hand, '0,15', '0,15');
  await allKept(hand);
  await api.workTo(id, 'backlash-set');
  await openBuild(at, 'Backlash set');
  await hand.sees('Reading 1 of 4');
  await reads(hand, '0,30', '0,31', '0,33', '0,32');
  await hand.sees('which shims on both sides of the carrier?');
  await hand.fill('Pack at the teeth now', '2,1 mm');
  await hand.fill('Pack at the other side', '1,9 mm');
  // Two readings are the way that is offered first, and one of them is not there.
  await hand.sees('Still to come: Backlash before');
  await hand.tabTo('Backlash for a shift');
  await hand.press('f');
  await hand.sees('Too wide: the ring goes to the pinion');
  expect(await hand.faults()).toEqual([]);
  await hand.use('Done so; now read it again');
  await allKept(hand);
  // Other shims lie under the caps: they are pulled again before it is read.
  await hand.go(`/jobs/${id}/build`);
  await hand.sees('Pulled before, and undone again');
  await api.workTo(id, 'backlash-set');
  await hand.go(`/jobs/${id}/build`);
  await hand.sees('Reading 1 of 4');
  await reads(hand, '0,15', '0,16', '0,17', '0,16');
  await allKept(hand);
  const { live, settings } = await stateOf(api, id);
  expect(live.some((entry) => entry.kind === 'worked' && entry.payload.working === 'gear.pinion-depth')).toBe(true);
  for (const ref of ['side-preload', 'backlash'])
    expect(settings.find(({ setting }) => setting.ref === ref)).toMatchObject({
      phase: 'set',
      tries: [{ verdict: 'out' }, { verdict: 'in' }],
    });
});

test('the pattern of a drive axle: a move of the wrong unit is refused, what it undid is set anew, and the next pattern is read with no link', async () => {
  const { api, id, hand } = await atJob(shop, 'ostrel-d44-drive-axle', 'contact-pattern-as-set', 'build');
  const at = { hand, id };
  await openBuild(at, 'Contact pattern as set');
  await hand.sees('fingers out of the teeth');
  await hand.tabTo('in the middle');
  await hand.press('ArrowRight', 'ArrowRight', 'ArrowUp', 'ArrowUp', 'Enter');
  await hand.press('ArrowLeft', 'ArrowLeft', 'ArrowUp', 'ArrowUp');
  await hand.sees('Coast side: at the toe, up at the face');
  await hand.sees('The pinion stands too far out');
  expect(await hand.faults()).toEqual([]);
  await hand.press('Enter');
  await hand.sees('A shim behind the head bearing gets as much thicker');
  await hand.fill('Moved by', '5');
  await hand.sees('at most 2 mm');
  await hand.fill('Moved by', '0,05');
  await hand.use('Bearing cap screws');
  await hand.use('Pinion nut, until the play is gone');
  expect(await hand.faults()).toEqual([]);
  await hand.use('Moved');
  // The nut is new each time, and so it is once more.
  await hand.sees('New each time');
  await allKept(hand);
  const first = ['flange-and-new-nut-on', 'preload-set', 'caps-on', 'backlash-set'];
  const { patterns, joints } = await stateOf(api, id);
  expect(patterns[0]).toMatchObject({ phase: 'set-first', first: first.map((ref) => ({ ref })) });
  expect(joints.find(({ joint }) => joint.ref === 'cap-screws')).toMatchObject({ done: 0 });
  await hand.go(`/jobs/${id}/build?step=contact-pattern-as-set`);
  await hand.sees('Before it is marked: Flange and new nut on');

  await api.workTo(id, 'contact-pattern-as-set');
  await openBuild(at, 'Contact pattern as set');
  await hand.sees('pinion 0.05 mm deeper');
  await hand.cut(true);
  await hand.tabTo('in the middle');
  await hand.press('Enter', 'Enter');
  await hand.press('ArrowRight', 'ArrowLeft', 'Enter');
  await hand.use('It is so');
  await hand.sees('Stop here. The foreman looks at the pattern');
  await hand.cut(false);
  await allKept(hand);
  expect((await stateOf(api, id)).patterns[0]).toMatchObject({
    phase: 'good',
    tries: [
      { verdict: 'out', before: 'as set' },
      { verdict: 'in', before: 'pinion 0.05 mm deeper' },
    ],
  });
});

test('used gears carry where they carried: the ring has no way left, and a foreman lets it stay so', async () => {
  const { api, id, hand } = await atJob(shop, 'harrowmere-pg540-pto-gearbox', 'backlash-set', 'build');
  await openBuild({ hand, id }, 'Backlash set');
  await reads(hand, '0,155', '0,156', '0,155', '0,156');
  await allKept(hand);
  await api.workTo(id, 'pattern');
  await openBuild({ hand, id }, 'Pattern');
  await hand.tabTo('in the middle');
  await hand.press('ArrowRight', 'ArrowRight', 'Enter', 'ArrowRight', 'ArrowRight', 'Enter');
  await hand.sees('the ring has no way to go');
  await hand.use('Leave it so');
  await hand.fill('Which foreman agrees', 'Oswin Tarrell');
  await hand.fill('Why it may stay so', 'used gears, quiet before');
  await hand.use('Keep it so');
  await allKept(hand);
  expect((await stateOf(api, id)).patterns[0]).toMatchObject({
    phase: 'good',
    tries: [{ verdict: 'out' }, { entry: { payload: { left: 'Oswin Tarrell: used gears, quiet before' } } }],
  });
});

test('a loose-ball hub: the lock moves the cone; a thread without a pitch is refused, then the offset is learnt', async () => {
  const { api, id, hand } = await atJob(shop, 'tindlebrook-cc1-loose-ball-hub', 'play-set', 'build');
  await openBuild({ hand, id }, 'Play set');
  await reads(hand, '0,12', '0,12', '0,12');
  await hand.sees('how far off do I set the cone?');
  await hand.fill('Play now', '0,12 mm');
  await hand.fill('Thread pitch', '0 mm');
  await hand.sees('Thread pitch: "0 mm"');
  await hand.fill('Thread pitch', '1 mm');
  await hand.fill('Last try, before', '0,15 mm');
  await hand.fill('Last try, locked', '0,09 mm');
  await hand.sees('Turn the cone');
  expect(await hand.faults()).toEqual([]);
  await hand.use('Done so; now read it again');
  await allKept(hand);
  await hand.go(`/jobs/${id}/build`);
  await hand.sees('Reading 1 of 3');
  await reads(hand, '0,02', '0,02', '0,02');
  await hand.heads('Disc screws');
  await allKept(hand);
  const [play] = (await stateOf(api, id)).settings;
  expect(play).toMatchObject({ phase: 'set', tries: [{ verdict: 'out' }, { verdict: 'in' }] });
  expect(play?.tries[1]?.before).toContain('turn the cone');
});

test('a propeller shaft: flange screws new each time, torque then angle by flats, one that turns without load', async () => {
  const { api, id, hand } = await atJob(shop, 'ostrel-ps2-propeller-shaft', 'on-the-machine', 'prove');
  const at = { hand, id };
  await openBuild(at, 'Flange screws, front', 'prove');
  await hand.sees('New each time');
  expect(await hand.faults()).toEqual([]);
  await hand.fill('Where they come from', 'out of the screw kit');
  await hand.use('New ones in hand');
  await hand.sees('Set the wrench to');
  await hand.use('Trouble');
  await hand.type('turns without load');
  await hand.press('Enter');
  for (let pull = 0; pull < 4; pull += 1) {
    await hand.sees(`Next is number ${pull + 1}`);
    await hand.use('Pulled');
  }
  await hand.sees('pass 2 of 2. Next is number 1');
  await hand.sees('Turn on by');
  expect(await hand.faults()).toEqual([]);
  await hand.use('Turned 45°');
  await hand.sees('Next is number 2');
  await allKept(hand);
  const { joints, live } = await stateOf(api, id);
  expect(live.some(({ kind, step }) => kind === 'replacement-here' && step === 'on-the-machine')).toBe(true);
  expect(joints.find(({ joint }) => joint.ref === 'flange-front')).toMatchObject({
    done: 5,
    total: 8,
    pulls: [{ payload: { result: 'trouble' } }, {}, {}, {}, {}, {}],
  });
});

test('a gearbox: a washer from those there are after a window that none meets, and a bearing used again judged by its own window', async () => {
  const { api, id, hand } = await atJob(shop, 'askvale-gx5-gearbox', 'shims-chosen', 'build');
  const at = { hand, id };
  await openBuild(at, 'Shims chosen');
  await hand.sees('Reading 1 of 3');
  await reads(hand, '0,42', '0,43', '0,42');
  await hand.sees('Which washer gives this shaft its end play?');
  await hand.fill('Washer now', '2 mm');
  await hand.fill('Washers there are', '2; 2,1');
  await hand.sees('the nearest, 2.1 mm, leaves');
  await hand.fill('Washers there are', '2; 2,1; 2,3; 2,35; 2,4');
  await hand.sees('2.35');
  await hand.use('Done so; now read it again');
  await allKept(hand);
  await hand.go(`/jobs/${id}/build`);
  await hand.sees('Reading 1 of 3');
  await reads(hand, '0,06', '0,07', '0,06');
  // The shims go back to their own bores.
  await hand.sees('Lines up again: tied to their bore');
  await hand.use('It lines up');
  await hand.heads('Output set');
  await allKept(hand);
  await api.workTo(id, 'diff-set');
  await openBuild(at, 'Diff set');
  // The bearings go back: by the window of new ones 0.9 N·m would be too loose.
  await hand.use('Used bearings');
  await hand.tabTo('Reading');
  await reads(hand, '0,9', '0,9', '0,9');
  await allKept(hand);
  const { settings } = await stateOf(api, id);
  expect(settings[0]).toMatchObject({ phase: 'set', tries: [{ verdict: 'out' }, { verdict: 'in' }] });
  expect(settings[2]).toMatchObject({ phase: 'set', bearings: 'used', window: { from: 0.6, to: 1.2 }, tries: [{ verdict: 'in' }] });

  // The next job of the sheet begins from what worked on this one.
  const next = await api.booked((await api.sheetKeyed('askvale-gx5-gearbox')).revisionId);
  await api.workTo(next.id, 'shims-chosen');
  await openBuild({ hand, id: next.id }, 'Shims chosen');
  await hand.sees('of this sheet left it at 0.063 mm');
  await hand.sees('Begin with take 2.35 mm');
});

test('a digital wrench: what a pull shows is seen as it happens, and counts only when it is one', async () => {
  const { api, id, hand } = await atJob(shop, 'ostrel-ps2-propeller-shaft', 'rear-flange-on', 'prove');
  const wrench = await paired(api, hand, 'W7');
  // The wrench that this tablet was used with last.
  await hand.page.evaluate((toolId) => localStorage.setItem('jubb.tool.torque-wrench', toolId), wrench.toolId);
  await openBuild({ hand, id }, 'Flange screws, rear', 'prove');
  await hand.fill('Where they come from', 'out of the screw kit');
  await hand.use('New ones in hand');
  await hand.sees('wrench W7');
  const pull = (fastener: Fastener, ...faults: readonly Fault[]): Promise<void> =>
    wrench.send(...wrench.standIn.pull({ snug: 3, stiffness: 0.5, wanted: 26, fastener }, faults));
  await pull('good');
  await hand.sees('Next is number 2');
  await pull('stripped');
  await hand.sees('Number 2 turns without load');
  await hand.sees('the thread is stripped, or there is none');
  expect(await hand.faults()).toEqual([]);
  await hand.use('Note the trouble');
  await pull('good', 'other unit');
  await hand.sees('It sends lbf·ft now, N·m before');
  await pull('already tight');
  await hand.sees('Number 2 is already tight');
  await hand.use('It was another one: do not count it');
  await hand.sees('Next is number 2');
  await pull('good');
  await hand.sees('Next is number 3');
  await allKept(hand);
  const run = (await stateOf(api, id)).joints.find(({ joint }) => joint.ref === 'flange-rear')!;
  expect(run.pulls.map(({ payload: { result, sight } }) => [result, sight])).toEqual([
    ['clicked', undefined],
    ['trouble', 'turns without load'],
    ['clicked', undefined],
  ]);
  const log = await api.call<string>('GET', `/jobs/${id}/torque-log.csv`);
  expect(log.body).toContain('turns without load');
});

test('a steered end: primed once all is masked, the wheel waits until it is dry; the colour is put off, and owed at the hand-over', async () => {
  const { api, id, hand } = await atJob(shop, 'tindlebrook-sk2-steered-end', 'primed', 'build');
  await openBuild({ hand, id }, 'Bare steel primed');
  await hand.sees('zinc primer, by brush');
  // Not all of it is masked: there is no key yet that says it is on.
  await hand.tabTo('disc and pads');
  await hand.press('Space');
  await hand.tabTo('breather');
  await hand.press('Space');
  expect(await isOffered()).toBe(false);
  await hand.page.reload();
  await hand.sees('zinc primer, by brush');
  await hand.tabTo('every seal: ball wiper, inner shaft, hub');
  await hand.press('Space');
  expect(await isOffered()).toBe(true);
  await hand.use('It is on, and dries');
  await allKept(hand);
  const primed = await stateOf(api, id);
  expect(primed.live.findLast(({ kind }) => kind === 'tick')?.payload).toEqual({ masked: 3 });
  expect(primed.clocks).toMatchObject([{ what: 'the primer dries', step: 'primed' }]);
  await hand.sees('the primer dries');
  await hand.use('It is ready now');
  await allKept(hand);

  await api.workTo(id, 'colour-on');
  await openBuild({ hand, id }, 'Colour on', 'prove');
  await hand.sees('machine colour, sprayed');
  await hand.sees('swells or cracks');
  await hand.use('Later');
  await hand.type('in spring, with the other side');
  await hand.press('Enter');
  await allKept(hand);
  const { owed, clocks } = await stateOf(api, id);
  expect(owed.map(({ payload }) => payload)).toEqual([
    { what: 'Colour on: machine colour, sprayed', told: 'in spring, with the other side' },
  ]);
  expect(clocks).toEqual([]);
  expect(await hand.faults()).toEqual([]);

  function isOffered(): Promise<boolean> {
    return hand.page.evaluate(() =>
      [...document.querySelectorAll('button')].some((key) => key.innerText.startsWith('It is on') && !key.disabled),
    );
  }
});
