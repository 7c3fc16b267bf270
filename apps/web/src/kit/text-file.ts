import { LONGEST_FILE, lineAt } from '@jubb/sheet/editing';

/** A file that cannot be read as text, and where. */
export class NotText extends Error {}

/**
 * The text of a file: UTF-8, or UTF-16 where a mark at its head says so. Anything else is refused
 * with the line of the first letter that is none, rather than read with letters lost.
 */
export async function readTextFile(file: Blob): Promise<string> {
  if (file.size > LONGEST_FILE)
    throw new NotText(`The file is too large: ${megabytes(file.size)}; at most ${megabytes(LONGEST_FILE)} are read`);
  return decodeText(new Uint8Array(await file.arrayBuffer()));
}

export function decodeText(bytes: Uint8Array): string {
  const utf16 = bytes[0] === 0xff && bytes[1] === 0xfe ? 'utf-16le' : bytes[0] === 0xfe && bytes[1] === 0xff ? 'utf-16be' : undefined;
  let text: string;
  try {
    text = new TextDecoder(utf16 ?? 'utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw new NotText(`Line ${firstBadLine(bytes)} is not UTF-8; save the file again as UTF-8`);
  }
  const nothing = text.indexOf('\0');
  if (nothing >= 0) throw new NotText(`Line ${lineAt(text, nothing)} holds letters that no text has: it is not a text file`);
  return text;
}

function megabytes(bytes: number): string {
  return `${(bytes / 1_000_000).toFixed(1)} MB`;
}

/** Lines are short and few of a file are bad, so each is tried by itself. */
function firstBadLine(bytes: Uint8Array): number {
  const decoder = new TextDecoder('utf-8', { fatal: true });
  let line = 1;
  let start = 0;
  for (let at = 0; at <= bytes.length; at += 1) {
    if (at < bytes.length && bytes[at] !== 0x0a) continue;
    try {
      decoder.decode(bytes.subarray(start, at));
    } catch {
      return line;
    }
    line += 1;
    start = at + 1;
  }
  return 1;
}
