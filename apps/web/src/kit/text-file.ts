import { LONGEST_FILE, lineAt, type LocatedIssue } from '@jubb/contract';

export type TextRead = { readonly ok: true; readonly text: string } | { readonly ok: false; readonly issues: readonly LocatedIssue[] };

/**
 * The text of a file: UTF-8, or UTF-16 where a mark at its head says so. Anything else is refused
 * with the line of the first letter that is none, rather than read with letters lost.
 */
export function decodeText(bytes: Uint8Array): TextRead {
  if (bytes.length > LONGEST_FILE)
    return refuse(1, `is too large: ${megabytes(bytes.length)}; at most ${megabytes(LONGEST_FILE)} are read`);
  const utf16 = bytes[0] === 0xff && bytes[1] === 0xfe ? 'utf-16le' : bytes[0] === 0xfe && bytes[1] === 0xff ? 'utf-16be' : undefined;
  try {
    const text = new TextDecoder(utf16 ?? 'utf-8', { fatal: true }).decode(bytes);
    const nothing = text.indexOf('\0');
    return nothing < 0 ? { ok: true, text } : refuse(lineAt(text, nothing), 'holds letters that no text has: it is not a text file');
  } catch {
    return refuse(firstBadLine(bytes), 'is not UTF-8 here; save the file again as UTF-8');
  }
}

function refuse(line: number, message: string): TextRead {
  return { ok: false, issues: [{ path: '', line, message }] };
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
