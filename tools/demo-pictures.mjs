// The photos and the clip of the demo: drawn here, photographed by Debian's Chromium, and kept beside the demo's sheets.
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { launchBrowser } from './browser.mjs';
import { say } from './say.mjs';
import { ROOT } from './setup.mjs';

const [WIDE, HIGH] = [640, 480];
const QUALITY = 62;

/** The same numbers each time. */
function drawer(seed) {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 4_294_967_296;
  };
}

const many = (count, one) => Array.from({ length: count }, (_, at) => one(at)).join('');
const ring = (outer, inner, fill) =>
  `<circle cx="320" cy="240" r="${outer}" fill="${fill}"/><circle cx="320" cy="240" r="${inner}" fill="#3c4043"/>`;

/** Each as what lies on the bench: a ground of worn wood, a light from the left. */
const PICTURES = {
  'race-pitted': (random) =>
    ring(200, 120, 'url(#steel)') +
    ring(172, 150, '#8b9094') +
    many(26, () => {
      const [turn, out] = [random() * Math.PI * 0.6 + 0.4, 156 + random() * 14];
      return `<ellipse cx="${320 + out * Math.cos(turn)}" cy="${240 + out * Math.sin(turn)}" rx="${1.5 + random() * 4}" ry="${1 + random() * 2}" fill="#2b2d2f"/>`;
    }),
  'seal-lip-worn': () =>
    ring(190, 150, '#22262a') +
    ring(150, 118, '#3b4147') +
    `<circle cx="320" cy="240" r="124" fill="none" stroke="#aab2b8" stroke-width="3"/>`,
  'gear-pattern': (random) =>
    many(
      5,
      (tooth) =>
        `<path d="M${80 + tooth * 100} 400 l26 -270 l44 0 l26 270 z" fill="url(#steel)" stroke="#555" stroke-width="2"/>
         <ellipse cx="${116 + tooth * 100 + random() * 4}" cy="${300 + random() * 8}" rx="16" ry="60" fill="#c9a227" opacity="0.75"/>`,
    ),
  'shaft-cracked': () =>
    `<rect x="60" y="190" width="520" height="100" rx="12" fill="url(#steel)"/>
     <path d="M330 190 l6 18 l-8 20 l10 22 l-6 40" fill="none" stroke="#1a1c1e" stroke-width="3"/>`,
  stamp: () =>
    `<rect x="150" y="160" width="340" height="160" rx="10" fill="#b9b4a4" stroke="#6c675a" stroke-width="4"/>
     <circle cx="172" cy="182" r="7" fill="#6c675a"/><circle cx="468" cy="298" r="7" fill="#6c675a"/>
     <text x="320" y="230" font-family="monospace" font-size="34" text-anchor="middle" fill="#3a372f">SKB 4-2071</text>
     <text x="320" y="280" font-family="monospace" font-size="26" text-anchor="middle" fill="#4d493f">LOT 17 B</text>`,
  magnet: (random) =>
    `<circle cx="320" cy="240" r="110" fill="#5c6063"/><circle cx="320" cy="240" r="86" fill="#33373a"/>` +
    many(120, () => {
      const [turn, out] = [random() * 6.283, Math.sqrt(random()) * 84];
      return `<rect x="${320 + out * Math.cos(turn)}" y="${240 + out * Math.sin(turn)}" width="${2 + random() * 9}" height="${1 + random() * 3}" fill="#c9ced2" transform="rotate(${random() * 180} 320 240)"/>`;
    }),
  'disc-scored': () =>
    ring(205, 70, 'url(#steel)') +
    many(9, (at) => `<circle cx="320" cy="240" r="${96 + at * 12}" fill="none" stroke="#6d7276" stroke-width="${1 + (at % 3)}"/>`),
  'ring-nicked': () =>
    `<circle cx="320" cy="240" r="140" fill="none" stroke="#17191b" stroke-width="24"/><path d="M455 200 l22 10 l-8 16 z" fill="#8d7f63"/>`,
  dirt: (random) =>
    `<rect x="140" y="110" width="360" height="260" rx="40" fill="#6d7478"/><circle cx="320" cy="240" r="80" fill="#50565a"/>` +
    many(
      240,
      () =>
        `<circle cx="${120 + random() * 400}" cy="${90 + random() * 300}" r="${1 + random() * 5}" fill="#4a4033" opacity="${0.3 + random() * 0.5}"/>`,
    ),
  rollers: () =>
    ring(190, 110, '#7b8084') +
    many(14, (at) => `<rect x="308" y="66" width="24" height="54" rx="6" fill="url(#steel)" transform="rotate(${at * 25.7} 320 240)"/>`),
};

const page = (
  drawn,
) => `<!doctype html><style>body{margin:0}</style><svg width="${WIDE}" height="${HIGH}" viewBox="0 0 ${WIDE} ${HIGH}" xmlns="http://www.w3.org/2000/svg">
  <defs>
    <linearGradient id="steel" x1="0" y1="0" x2="1" y2="1"><stop offset="0" stop-color="#e6eaec"/><stop offset="0.5" stop-color="#9aa1a6"/><stop offset="1" stop-color="#5e6468"/></linearGradient>
    <radialGradient id="light" cx="0.3" cy="0.2" r="0.9"><stop offset="0" stop-color="#fff" stop-opacity="0.28"/><stop offset="1" stop-color="#000" stop-opacity="0.35"/></radialGradient>
    <filter id="grain"><feTurbulence baseFrequency="0.012 0.4" numOctaves="2" seed="4"/><feColorMatrix values="0 0 0 0 0.45 0 0 0 0 0.36 0 0 0 0 0.25 0 0 0 0.5 0"/></filter>
  </defs>
  <rect width="${WIDE}" height="${HIGH}" fill="#8d7f63"/><rect width="${WIDE}" height="${HIGH}" filter="url(#grain)"/>${drawn}
  <rect width="${WIDE}" height="${HIGH}" fill="url(#light)"/></svg>`;

/** A rumble of some seconds as a clip: a low tone that knocks once a turn. */
function rumble() {
  const { AudioContext, Blob, GainNode, MediaRecorder, OscillatorNode } = window;
  const context = new AudioContext();
  const out = context.createMediaStreamDestination();
  const tone = new OscillatorNode(context, { frequency: 62, type: 'sawtooth' });
  const knock = new OscillatorNode(context, { frequency: 3.4, type: 'square' });
  const loud = new GainNode(context, { gain: 0.15 });
  const depth = new GainNode(context, { gain: 0.12 });
  knock.connect(depth).connect(loud.gain);
  tone.connect(loud).connect(out);
  tone.start();
  knock.start();
  const recorder = new MediaRecorder(out.stream, { mimeType: 'audio/webm;codecs=opus', audioBitsPerSecond: 12_000 });
  const chunks = [];
  return new Promise((resolve) => {
    recorder.ondataavailable = ({ data }) => chunks.push(data);
    recorder.onstop = async () => resolve([...new Uint8Array(await new Blob(chunks).arrayBuffer())]);
    recorder.start();
    setTimeout(() => recorder.stop(), 4000);
  });
}

export async function demoPictures() {
  const folder = join(ROOT, 'apps/server/demo/pictures');
  mkdirSync(folder, { recursive: true });
  const { browser, close } = await launchBrowser();
  try {
    const tab = await browser.newPage();
    await tab.setViewport({ width: WIDE, height: HIGH });
    for (const [at, [name, draw]] of Object.entries(PICTURES).entries()) {
      await tab.setContent(page(draw(drawer(417 + at))));
      writeFileSync(join(folder, `${name}.jpg`), await tab.screenshot({ type: 'jpeg', quality: QUALITY }));
    }
    writeFileSync(join(folder, 'rumble.webm'), Buffer.from(await tab.evaluate(rumble)));
  } finally {
    await close();
  }
  say(`${Object.keys(PICTURES).length} photos and a clip are in ${folder}`);
}
