// Which folder may know which: each one those before it.
const FLOORS = ['given', 'model', 'lines', 'checking', 'reading', 'review', 'editing'];
const above = (floor) => FLOORS.slice(FLOORS.indexOf(floor) + 1).join('|');

module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    ...FLOORS.slice(0, -1).map((floor) => ({
      name: `${floor}-knows-nothing-above-it`,
      severity: 'error',
      // A door of the package shows what is behind it, whichever floor that is on.
      from: { path: `^src/${floor}/`, pathNot: '(index|[.]test)[.]ts$' },
      to: { path: `^src/(${above(floor)})/` },
    })),
  ],
  options: { tsPreCompilationDeps: true, tsConfig: { fileName: 'tsconfig.json' }, doNotFollow: { path: 'node_modules' } },
};
