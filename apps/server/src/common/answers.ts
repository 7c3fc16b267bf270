import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';

type Schema = Readonly<Record<string, unknown>>;

const MADE = createRequire(import.meta.url).resolve('@jubb/wire/answers.json');

/** Schemas of the answers, made from their types when the package is built. */
export const ANSWER_SCHEMAS = {
  refOf: (name: string): string => `#/components/schemas/answer.${name}`,
  all(): Readonly<Record<string, Schema>> {
    const { definitions } = JSON.parse(readFileSync(MADE, 'utf8')) as { definitions: Record<string, Schema> };
    const text = JSON.stringify(definitions).replace(
      /"#\/definitions\/([^"]+)"/gu,
      (_, name: string) => `"${this.refOf(plainName(decodeURIComponent(name)))}"`,
    );
    const moved = JSON.parse(text) as Record<string, Schema>;
    return Object.fromEntries(Object.entries(moved).map(([name, schema]) => [`answer.${plainName(name)}`, schema]));
  },
};

/** A name as the document may have it: letters, digits, points, hyphens. */
function plainName(name: string): string {
  return name.replace(/[^\w.-]+/gu, '_');
}
