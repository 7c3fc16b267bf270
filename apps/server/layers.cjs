// Which domain may know which: each floor those below it.
const FLOORS = [
  ['common', 'database'],
  ['stream', 'outbox', 'tablets', 'workings'],
  ['notices', 'files', 'benches', 'stores', 'sheets', 'instruments'],
  ['entries', 'people', 'health'],
  ['jobs', 'orders', 'quotes'],
  ['today', 'crib', 'customers', 'reports'],
  ['begin', 'demo', 'lists'],
];

module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    ...FLOORS.slice(0, -1).map((floor, at) => ({
      name: `${floor.join('-')}-know-nothing-above-them`,
      severity: 'error',
      from: { path: `^src/(${floor.join('|')})/` },
      to: {
        path: `^src/(${FLOORS.slice(at + 1)
          .flat()
          .join('|')})/`,
      },
    })),
    {
      name: 'every-domain-stands-on-a-floor',
      severity: 'error',
      from: { path: '^src/' },
      to: { path: '^src/[^/]+/', pathNot: `^src/(${FLOORS.flat().join('|')})/` },
    },
  ],
  options: { tsPreCompilationDeps: true, tsConfig: { fileName: 'tsconfig.json' }, doNotFollow: { path: 'node_modules' } },
};
