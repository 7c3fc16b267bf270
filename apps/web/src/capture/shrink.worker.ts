import { sha256 } from '@noble/hashes/sha2';
import { bytesToHex } from '@noble/hashes/utils';

/** Enough to read a part number by; some 300 kB. */
const LONGEST_SIDE = 1600;
const QUALITY = 0.82;

export interface ShrinkTask {
  readonly file: Blob;
  /** A clip is kept as it was recorded. */
  readonly isPhoto: boolean;
}

export type Shrunk =
  | { readonly ok: true; readonly sha: string; readonly blob: Blob; readonly width: number; readonly height: number }
  | { readonly ok: false };

/** Draws a photo anew, smaller: what the camera wrote beside it, the place too, is left behind. */
addEventListener('message', ({ data: { file, isPhoto } }: MessageEvent<ShrinkTask>) => {
  void (isPhoto ? shrunk(file) : Promise.resolve({ blob: file, width: 0, height: 0 })).then(
    async ({ blob, width, height }) => {
      const sha = bytesToHex(sha256(new Uint8Array(await blob.arrayBuffer())));
      postMessage({ ok: true, sha, blob, width, height } satisfies Shrunk);
    },
    () => postMessage({ ok: false } satisfies Shrunk),
  );
});

async function shrunk(file: Blob): Promise<{ blob: Blob; width: number; height: number }> {
  const picture = await createImageBitmap(file);
  const scale = Math.min(1, LONGEST_SIDE / Math.max(picture.width, picture.height));
  const [width, height] = [Math.round(picture.width * scale), Math.round(picture.height * scale)];
  const canvas = new OffscreenCanvas(width, height);
  const paper = canvas.getContext('2d')!;
  // What lets through would come out black.
  paper.fillStyle = '#fff';
  paper.fillRect(0, 0, width, height);
  paper.drawImage(picture, 0, 0, width, height);
  picture.close();
  return { blob: await canvas.convertToBlob({ type: 'image/jpeg', quality: QUALITY }), width, height };
}
