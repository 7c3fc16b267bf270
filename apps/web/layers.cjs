// Which folder may know which. Stages know job, kit, drawings and link, and the stages before them; job-page and bench put
// the stages together; nothing below knows anything above it.
const STAGES = ['book-in', 'strip', 'measure', 'decide', 'build', 'prove', 'hand-over'];
const later = (stage) => STAGES.slice(STAGES.indexOf(stage) + 1).join('|');

module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'the-lowest-know-nothing-above',
      severity: 'error',
      from: { path: '^src/(kit|drawings|link)/' },
      to: { path: '^src/(app|job|stages|sheets|stores|crib|today|shop|workings|learn|offer|clocks|capture)/' },
    },
    { name: 'job-knows-no-stage', severity: 'error', from: { path: '^src/job/' }, to: { path: '^src/stages/' } },
    {
      name: 'no-folder-knows-the-application',
      comment: 'but for the bench view, which is a whole page: it shows who is working and the link',
      severity: 'error',
      from: { path: '^src/', pathNot: '^src/(app/|main\\.tsx|stages/bench/)' },
      to: { path: '^src/app/' },
    },
    ...STAGES.slice(0, -1).map((stage) => ({
      name: `${stage}-knows-no-later-stage`,
      severity: 'error',
      from: { path: `^src/stages/${stage}/` },
      to: { path: `^src/stages/(${later(stage)})/` },
    })),
    {
      name: 'no-stage-knows-who-puts-it-together',
      severity: 'error',
      from: { path: `^src/stages/(${STAGES.join('|')})/` },
      to: { path: '^src/stages/(job-page|bench)/' },
    },
  ],
  options: { tsPreCompilationDeps: true, tsConfig: { fileName: 'tsconfig.json' }, doNotFollow: { path: 'node_modules|packages' } },
};
