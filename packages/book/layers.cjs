// Which folder may know which. What follows from entries knows no kind of entry but by its payload; the kinds stand above it.
module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'what-follows-knows-no-kind',
      severity: 'error',
      from: { path: '^src/(measured|runs|strip|parts|steps|entries/kept)', pathNot: '[.]test[.]ts$' },
      to: { path: '^src/(kinds|report)/' },
    },
    {
      name: 'a-run-knows-nothing-of-the-job-as-a-whole',
      severity: 'error',
      from: { path: '^src/(measured|runs|strip/(counts|ledger-line|marks|stack))', pathNot: '[.]test[.]ts$' },
      to: { path: '^src/(state|now|today|build-list)[.]ts$' },
    },
    {
      name: 'measured-knows-no-run',
      severity: 'error',
      from: { path: '^src/measured/', pathNot: '[.]test[.]ts$' },
      to: { path: '^src/(runs|strip|parts|steps)/' },
    },
    {
      name: 'a-kind-knows-no-other',
      severity: 'error',
      from: { path: '^src/kinds/(?!all|registry|define-kind)([^/]+)[.]ts$', pathNot: '[.]test[.]ts$' },
      to: { path: '^src/kinds/', pathNot: '/(define-kind|fields|places|roles|report-sections)[.]ts$' },
    },
    {
      name: 'nothing-knows-the-report',
      severity: 'error',
      from: { pathNot: '^src/(report/|index[.]ts)|[.]test(-kit)?[.]ts$' },
      to: { path: '^src/report/' },
    },
  ],
  options: { tsPreCompilationDeps: true, tsConfig: { fileName: 'tsconfig.json' }, doNotFollow: { path: 'node_modules' } },
};
