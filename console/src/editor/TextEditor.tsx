import { autocompletion, type CompletionContext } from '@codemirror/autocomplete';
import { yaml } from '@codemirror/lang-yaml';
import { type Diagnostic, linter, lintGutter } from '@codemirror/lint';
import { EditorState } from '@codemirror/state';
import { EditorView } from '@codemirror/view';
import { basicSetup } from 'codemirror';
import { useEffect, useRef } from 'react';
import type { FaultView } from '../api/problem';
import './editor.css';
import { offersAt, type Schema, spotOf } from './schemaCompletion';

interface Props {
  label: string;
  text: string;
  /** Null where the text is only shown. */
  onText: ((text: string) => void) | null;
  schema: Schema;
  /** What is wrong with a text, as the service says it. */
  check: (text: string) => Promise<FaultView[]>;
}

/** Before a text is checked that is being typed, in milliseconds. */
const pause = 500;

/** An editor of YAML that completes by a schema and shows the service's own faults at their lines. */
export function TextEditor({ label, text, onText, schema, check }: Props) {
  const place = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView>(null);
  const latest = useRef({ onText, check });
  useEffect(() => {
    latest.current = { onText, check };
  });
  const readOnly = onText === null;
  useEffect(() => {
    if (!place.current) return;
    const editor = new EditorView({
      parent: place.current,
      state: EditorState.create({
        extensions: [
          basicSetup,
          yaml(),
          EditorState.tabSize.of(2),
          EditorState.readOnly.of(readOnly),
          EditorView.lineWrapping,
          EditorView.contentAttributes.of({ 'aria-label': label, ...(readOnly ? { tabindex: '0' } : {}) }),
          autocompletion({ override: [(context) => complete(context, schema)] }),
          ...(readOnly
            ? []
            : [
                lintGutter(),
                linter(async (v) => diagnostics(v.state, await latest.current.check(v.state.doc.toString())), {
                  delay: pause,
                }),
              ]),
          EditorView.updateListener.of((update) => {
            if (update.docChanged) latest.current.onText?.(update.state.doc.toString());
          }),
        ],
      }),
    });
    editor.scrollDOM.tabIndex = 0; // whoever scrolls by keyboard gets there
    view.current = editor;
    return () => editor.destroy();
  }, [label, schema, readOnly]);
  useEffect(() => {
    const editor = view.current;
    if (editor && editor.state.doc.toString() !== text)
      editor.dispatch({ changes: { from: 0, to: editor.state.doc.length, insert: text } });
  }, [text, label, schema, readOnly]);
  return <div ref={place} className="editor" />;
}

function complete(context: CompletionContext, schema: Schema) {
  const before = context.state.sliceDoc(0, context.pos);
  const spot = spotOf(before.split('\n'));
  if (spot.typed === '' && !context.explicit) return null;
  return {
    from: context.pos - spot.typed.length,
    options: offersAt(schema, spot),
    validFor: /^[\w.-]*$/,
  };
}

/** Faults as marks in the text; one without a line stands at the head. */
function diagnostics(state: EditorState, faults: FaultView[]): Diagnostic[] {
  return faults.map((fault) => {
    const line = state.doc.line(Math.min(Math.max(fault.line, 1), state.doc.lines));
    const from = Math.min(line.from + Math.max(fault.column - 1, 0), line.to);
    const expected = fault.expected ? ` Expected: ${fault.expected}.` : '';
    const nearest = fault.nearest ? ` Did you mean '${fault.nearest}'?` : '';
    return { from, to: line.to, severity: 'error', message: `${fault.message}${expected}${nearest}` };
  });
}
