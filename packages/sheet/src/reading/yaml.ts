import { inOrder } from '../lines/in-order.js';
import type { SheetFile } from '../model/file.js';
import type { PlainRead } from './plain.js';
import {
  Document,
  LineCounter,
  isAlias,
  isCollection,
  isMap,
  isNode,
  isScalar,
  isSeq,
  parseDocument,
  visit,
  type Node,
  type Pair,
  type YAMLMap,
} from 'yaml';

/** The deepest that a sheet goes, and more. */
const DEEPEST = 12;

/**
 * Reads YAML 1.2 with the JSON-like core schema. References to other places (`*name`) are refused:
 * no sheet needs them, and a few lines of them can stand for more than a machine holds.
 */
export function readYaml(text: string): PlainRead {
  const counter = new LineCounter();
  const refuse = (offset: number, message: string): PlainRead => ({
    ok: false,
    issue: { path: '', line: Math.max(1, counter.linePos(offset).line), message },
  });
  // Whether a name stands twice is looked at below: the package holds each name against every other.
  const doc = parseDocument(text, { lineCounter: counter, schema: 'core', version: '1.2', uniqueKeys: false, prettyErrors: false });
  // What YAML only warns of, an unknown tag say, would be read as something else than was meant.
  const [error] = [...doc.errors, ...doc.warnings];
  if (error) return refuse(error.pos[0], `is not YAML here (${error.message.split('\n')[0] ?? ''})`);
  let trouble: { readonly offset: number; readonly message: string } | undefined;
  visit(doc, (_, node, path) => {
    const offset = isNode(node) ? (node.range?.[0] ?? 0) : 0;
    if (isAlias(node)) trouble = { offset, message: `"*${node.source}" points to another place; write it out instead` };
    else if (path.length > 2 * DEEPEST) trouble = { offset, message: 'goes too deep for a sheet' };
    else if (isMap(node)) trouble = twice(node);
    return trouble ? visit.BREAK : undefined;
  });
  if (trouble) return refuse(trouble.offset, trouble.message);
  return {
    ok: true,
    plain: doc.toJS() as unknown,
    lineOf: (path) => {
      const node = doc.getIn(path, true);
      return isNode(node) && node.range ? counter.linePos(node.range[0]).line : undefined;
    },
  };
}

/** The first name that stands in a map for the second time; each is looked at once. */
function twice({ items }: YAMLMap): { readonly offset: number; readonly message: string } | undefined {
  const seen = new Set<unknown>();
  for (const { key } of items) {
    const name = isScalar(key) ? String(key.value) : undefined;
    if (name === undefined) continue;
    if (seen.has(name)) return { offset: (isNode(key) ? key.range?.[0] : 0) ?? 0, message: `is not YAML here ("${name}" stands twice)` };
    seen.add(name);
  }
  return undefined;
}

/**
 * A sheet as YAML. With the text it once came from, its comments, order and blank lines are kept
 * wherever the line they belong to is still there.
 */
export function writeYaml(sheet: SheetFile, before?: string): string {
  const doc = before === undefined ? undefined : parseDocument(before, { schema: 'core', version: '1.2', uniqueKeys: false });
  if (!doc || doc.errors.length > 0 || !isMap(doc.contents)) return readable(new Document(inOrder(sheet), WRITE)).toString(WRITE);
  return merged(doc as Document, inOrder(sheet)).toString(WRITE);
}

const WRITE = { lineWidth: 120, schema: 'core', version: '1.2', aliasDuplicateObjects: false } as const;

/** A small object that holds but words and figures is easier to read on one line. */
const ONE_LINE = 110;

function readable(doc: Document): Document {
  visit(doc, {
    Map: (_, map, path) => {
      const lengths = map.items.map(({ key, value }) =>
        isScalar(key) && isScalar(value) ? String(key.value).length + String(value.value).length + 4 : ONE_LINE,
      );
      if (path.length > 2 && lengths.reduce((sum, length) => sum + length, 0) < ONE_LINE) map.flow = true;
    },
  });
  return doc;
}

function merged(doc: Document, sheet: SheetFile): Document {
  doc.contents = merge(doc, doc.contents as Node, sheet) as typeof doc.contents;
  return doc;
}

/** The old node with the new content; a node is replaced only where it cannot hold it. */
function merge(doc: Document, node: unknown, content: unknown): Node {
  if (isMap(node) && typeof content === 'object' && content !== null && !Array.isArray(content)) {
    const fields = content as Record<string, unknown>;
    node.items = node.items.filter((pair) => Object.hasOwn(fields, String(keyOf(pair))));
    for (const [name, field] of Object.entries(fields)) {
      const pair = node.items.find((candidate) => keyOf(candidate) === name);
      if (pair) pair.value = merge(doc, pair.value, field);
      else node.set(doc.createNode(name), doc.createNode(field));
    }
    return node;
  }
  if (isSeq(node) && Array.isArray(content)) {
    const old = node.items;
    const byRef = new Map(old.flatMap((item) => (isMap(item) && item.has('ref') ? [[String(item.get('ref')), item] as const] : [])));
    node.items = content.map((item: unknown, index) => {
      const ref = typeof item === 'object' && item !== null && 'ref' in item ? String(item.ref) : undefined;
      return merge(doc, ref === undefined ? old[index] : byRef.get(ref), item);
    });
    return node;
  }
  if (isScalar(node) && (content === null || typeof content !== 'object')) {
    if (node.value !== content) node.value = content;
    return node;
  }
  const made = doc.createNode(content) as Node;
  if (isCollection(made) && isCollection(node)) made.flow = node.flow ?? false;
  return made;
}

function keyOf({ key }: Pair<unknown>): unknown {
  return isScalar(key) ? key.value : key;
}

/** One line of a sheet as YAML, to be written in. */
export function writeLineYaml(line: object): string {
  return readable(new Document(inOrder(line), WRITE)).toString(WRITE);
}

export type LineRead =
  { readonly ok: true; readonly line: object } | { readonly ok: false; readonly line: number; readonly message: string };

export function readLineYaml(text: string): LineRead {
  const read = readYaml(text);
  if (!read.ok) return { ok: false, line: read.issue.line, message: read.issue.message };
  const { plain } = read;
  return typeof plain === 'object' && plain !== null && !Array.isArray(plain) && typeof (plain as { ref?: unknown }).ref === 'string'
    ? { ok: true, line: plain }
    : { ok: false, line: 1, message: 'needs named fields, "ref" among them' };
}
