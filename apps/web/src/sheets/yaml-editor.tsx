import { autocompletion, type CompletionContext, type CompletionResult } from '@codemirror/autocomplete';
import { yaml } from '@codemirror/lang-yaml';
import { HighlightStyle, syntaxHighlighting } from '@codemirror/language';
import { linter } from '@codemirror/lint';
import { EditorView } from '@codemirror/view';
import { tags } from '@lezer/highlight';
import { lineIssues } from '@jubb/sheet/editing';
import type { SheetList } from '@jubb/sheet';
import { ENDPOINTS } from '@jubb/wire';
import { useQuery } from '@tanstack/react-query';
import CodeMirror from '@uiw/react-codemirror';
import { useMemo, type ReactElement } from 'react';
import { ask } from '../link/client.ts';
import { pathTo, schemaAt, type Schema } from './schema-path.ts';

interface YamlEditorProps {
  readonly label: string;
  readonly list: SheetList;
  readonly text: string;
  readonly onText: (text: string) => void;
  readonly onLeave: () => void;
}

const CHECK_AFTER_MS = 500;

const COLOURS = HighlightStyle.define([
  { tag: tags.propertyName, color: 'var(--steel)', fontWeight: '600' },
  { tag: tags.comment, color: 'var(--soft)' },
  { tag: tags.string, color: 'var(--ink)' },
]);

/** A line of a sheet as YAML: names and choices of the published format are offered, what is wrong is marked where it stands. */
export function YamlEditor({ label, list, text, onText, onLeave }: YamlEditorProps): ReactElement {
  const { data: schema } = useQuery({
    queryKey: ['sheet-schema'],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () => ask(ENDPOINTS.sheets.schema),
  });
  const extensions = useMemo(
    () => [
      yaml(),
      syntaxHighlighting(COLOURS),
      EditorView.lineWrapping,
      EditorView.contentAttributes.of({ 'aria-label': label }),
      autocompletion({ override: [(context) => (schema ? offered(schema as Schema, list, context) : null)] }),
      linter(
        ({ state }) =>
          lineIssues(list, state.doc.toString()).map(({ path, message, line }) => {
            const { from, to } = state.doc.line(Math.min(line, state.doc.lines));
            return { from, to, severity: 'error', message: [path, message].filter(Boolean).join(' ') };
          }),
        { delay: CHECK_AFTER_MS },
      ),
    ],
    [label, list, schema],
  );
  return (
    <CodeMirror
      className="yaml-editor"
      value={text}
      theme="none"
      // Tab leaves the field, as everywhere.
      indentWithTab={false}
      basicSetup={{ foldGutter: false, lineNumbers: false, highlightActiveLine: false, highlightActiveLineGutter: false }}
      extensions={extensions}
      onChange={onText}
      onBlur={onLeave}
    />
  );
}

/** Names that a place takes and does not have yet; behind a colon, what may be chosen there. */
function offered(root: Schema, list: SheetList, context: CompletionContext): CompletionResult | null {
  const { state, pos } = context;
  const line = state.doc.lineAt(pos);
  const before = line.text.slice(0, pos - line.from);
  const { path, beside } = pathTo(state.doc.toString().split('\n'), line.number - 1);
  const choice = /^(?:\s|- )*(?<name>[\w-]+):\s*(?<typed>[\w' -]*)$/u.exec(before)?.groups;
  if (choice) {
    const { enum: choices = [], type } = schemaAt(root, [list, ...path, choice['name'] ?? '']) ?? {};
    const all = type === 'boolean' ? ['true', 'false'] : choices.map(String);
    return all.length === 0
      ? null
      : { from: pos - (choice['typed']?.length ?? 0), options: all.map((one) => ({ label: one, type: 'enum' })) };
  }
  const typed = /^(?:\s|- )*(?<typed>[\w-]*)$/u.exec(before)?.groups?.['typed'];
  if (typed === undefined || (typed === '' && !context.explicit)) return null;
  const { properties = {}, required = [] } = schemaAt(root, [list, ...path]) ?? {};
  const names = Object.keys(properties).filter((name) => !beside.includes(name));
  return {
    from: pos - typed.length,
    options: names.map((name) => {
      const detail = required.includes(name) ? 'needed' : (properties[name]?.description ?? '');
      return { label: name, apply: `${name}: `, detail, type: 'property' };
    }),
  };
}
