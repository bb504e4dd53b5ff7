import type { Loose } from './loose';
import type { RaiseStep } from './raise';

/** Version 3 notes who chose lengths and transitions. Of what there was before nobody can tell, so nothing is held. */
export const fromTwoToThree: RaiseStep = {
  content: (content) => content,
  edit(edit, show) {
    if (edit.kind === 'together')
      return { ...edit, edits: (edit.edits as readonly Loose[]).map((inner) => fromTwoToThree.edit(inner, show)) };
    if (edit.kind === 'set-lengths') return { ...edit, lengths: byNobody(edit.lengths) };
    return edit.kind === 'set-transitions' ? { ...edit, transitions: byNobody(edit.transitions) } : edit;
  },
};

function byNobody(entries: unknown): Loose[] {
  return (entries as readonly Loose[]).map((entry) => ({ ...entry, by: null }));
}
