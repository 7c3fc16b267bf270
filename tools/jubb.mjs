import { Stop, remark, say } from './say.mjs';

const HELP = `./jubb start [--empty | --demo small] [--lan [--certificate FILE --key FILE]]
                         set up what is missing, serve the demo (or an empty shop, or a small one), print the address; --lan: for the
                         tablets of the shop's network too, by https with an authority of its own or the certificate that is given
./jubb demo --again      throw the demo away and make it anew; a shop of one's own is left alone
./jubb stop              stop what start started
./jubb install [--lan …]  as root: a service of this machine, under a user of its own, from when it boots
./jubb lan [--off | --certificate FILE --key FILE]
                         as root, of a service: for the tablets of the shop's network too, from now on, or no more
./jubb update FOLDER     to a newer checkout: backed up, built, started, and back again where that one does not answer;
                         --back: after one that was cut off
./jubb build             set up what is missing and build; start does it by itself
./jubb backup [FOLDER]    the whole shop, encrypted, to a folder of another disk; named once, made anew at night, old ones thinned
./jubb restore FOLDER [--to TIME]
                         the shop as it was, into a JUBB_HOME where nothing lies yet
./jubb rehearse          bring the last backup back beside the shop, and hold one against the other
./jubb walk [--clear]    whether chains, photos and shelves hold together; every night by itself; --clear: takes away files that
                         nothing names
./jubb let-in LOGIN       a new password for who has no foreman to ask; takes their code and their PIN away
./jubb status            whether all is well, in ten lines
./jubb dev               the demo, following what you type: types, server and pages
./jubb imports           make docs/imports.txt anew: which folder knows which
./jubb sheet check FILE …
                         what the checker says of sheet files, and every task, variant and way of them played to the end
./jubb slips             one mistake at a time on every sheet: what is seen, by what and how soon; makes docs/slips.md anew
./jubb test              set up what is missing, run every check and test
./jubb bench [--only NAME] [--all] | soak|stores|shims|load|hard|years
                         measure, as ratios, each line as it is measured, and as JSON; soak: ten minutes of tablets, the servers and the
                         database killed; stores: shelves of 50 000 lines, the cheapest cover; load: a hundred tablets on 200 open jobs;
                         hard: the worst requests, fifty thousand of them, a minute of guessing; years: the demo's first start and its places
./jubb shots [folder]    make docs/screenshots anew from the demo
./jubb demo-pictures      draw the demo's photos and its clip anew
./jubb instrument TAG --of '34.98 mm' [--lines N] [--seed N] [--fault NAME]
                         a stand-in of that instrument sends to the running server
./jubb help              this

JUBB_PORT          where start serves            4170
JUBB_LAN_PORT, JUBB_LAN_TRUST_PORT
                   where --lan serves            4443, 4480
JUBB_HOME          where data lives              .jubb
JUBB_DATABASE_URL  another PostgreSQL to use     one of Jubb's own in JUBB_HOME`;

const COMMANDS = {
  start: async (args) => (await import('./serve.mjs')).start(args),
  demo: async (args) => (await import('./serve.mjs')).demoAgain(args),
  install: async (args) => (await import('./install.mjs')).install(args),
  lan: async (args) => (await import('./install.mjs')).lan(args),
  update: async (args) => (await import('./update.mjs')).update(args),
  build: async () => (await import('./setup.mjs')).prepare(),
  backup: async (args) => (await import('./backup.mjs')).backup(args),
  restore: async (args) => (await import('./backup.mjs')).restore(args),
  rehearse: async () => (await import('./backup.mjs')).rehearse(),
  walk: async (args) => (await import('./walk.mjs')).walk(args),
  'let-in': async (args) => (await import('./let-in.mjs')).letInCommand(args),
  status: async () => (await import('./status.mjs')).status(),
  dev: async () => (await import('./dev.mjs')).dev(),
  imports: async () => (await import('./imports.mjs')).imports(),
  stop: async () => (await import('./serve.mjs')).stop(),
  sheet: async (args) => (await import('./sheet.mjs')).sheet(args),
  slips: async () => (await import('./slips.mjs')).slips(),
  test: async (args) => (await import('./test.mjs')).test(args),
  bench: async ([what, ...rest]) => {
    if (what === 'soak') return (await import('./soak.mjs')).benchSoak();
    if (what === 'stores') return (await import('./bench-stores.mjs')).benchStores();
    if (what === 'shims') return (await import('./bench-shims.mjs')).benchShims();
    if (what === 'hard') return (await import('./bench-hard.mjs')).benchHard();
    if (what === 'years') return (await import('./bench-years.mjs')).benchYears();
    if (what === 'load') return (await import('./bench-load.mjs')).benchLoad();
    return (await import('./bench.mjs')).bench([what, ...rest].filter(Boolean));
  },
  instrument: async (args) => (await import('./instrument.mjs')).instrument(args),
  shots: async (args) => (await import('./shots.mjs')).shots(args),
  'demo-pictures': async () => (await import('./demo-pictures.mjs')).demoPictures(),
  help: () => say(HELP),
};

// Whoever reads only the first lines, as `head` does, has what they wanted.
process.stdout.on('error', ({ code }) => process.exit(code === 'EPIPE' ? 0 : 1));

const [name = 'help', ...args] = process.argv.slice(2);
try {
  const command = COMMANDS[name];
  if (!command) throw new Stop(`"${name}" is not a command; ./jubb help lists them`);
  await command(args);
} catch (error) {
  if (!(error instanceof Stop)) throw error;
  remark(`jubb: ${error.message}`);
  process.exitCode = 1;
}
