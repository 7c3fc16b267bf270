/** An end that the person in front of the terminal can mend: one line, no stack. */
export class Stop extends Error {}

export function say(line) {
  process.stdout.write(`${line}\n`);
}

/** Progress and remarks, beside what is printed as a result. */
export function remark(line) {
  process.stderr.write(`${line}\n`);
}
