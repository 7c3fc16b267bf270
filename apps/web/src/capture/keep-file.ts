import { files } from '../link/files.ts';
import type { ShrinkTask, Shrunk } from './shrink.worker.ts';

/** More than any camera of a tablet makes; a page can hold no more of it than once. */
const LARGEST_PHOTO = 60_000_000;

export interface KeptFile {
  readonly sha: string;
  readonly width: number;
  readonly height: number;
}

/** Shrinks a photo away from the page and keeps it on this device. Rejects with words for the person. */
export async function keepPhoto(file: File): Promise<KeptFile> {
  if (file.size > LARGEST_PHOTO)
    throw new Error(`"${file.name}" has ${Math.round(file.size / 1e6)} MB; at most ${LARGEST_PHOTO / 1e6} MB can be taken in`);
  const made = await inWorker({ file, isPhoto: true });
  if (!made.ok) throw new Error(`"${file.name}" is no picture that this browser can read; a JPEG or PNG will do`);
  return kept(made);
}

export async function keepClip(blob: Blob): Promise<KeptFile> {
  const made = await inWorker({ file: blob, isPhoto: false });
  if (!made.ok) throw new Error('The clip cannot be read back; record it again');
  return kept(made);
}

async function kept({ sha, blob, width, height }: Extract<Shrunk, { ok: true }>): Promise<KeptFile> {
  await files.add(sha, blob).catch(() => {
    throw new Error('This tablet is full: the picture is not kept. Make room, or wait until what is held is sent');
  });
  return { sha, width, height };
}

function inWorker(task: ShrinkTask): Promise<Shrunk> {
  const worker = new Worker(new URL('./shrink.worker.ts', import.meta.url), { type: 'module' });
  return new Promise<Shrunk>((resolve) => {
    worker.onmessage = ({ data }: MessageEvent<Shrunk>) => resolve(data);
    worker.onerror = () => resolve({ ok: false });
    worker.postMessage(task);
  }).finally(() => worker.terminate());
}
