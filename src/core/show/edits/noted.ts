/** Notes by name after some were set (null takes one away), and the entries that set them back; without any the show has no empty list of them, so that what is taken back is as it was. */
export function noted<Note = string>(
  before: Readonly<Record<string, Note>> | undefined,
  entries: readonly { readonly name: string; readonly note: Note | null }[],
): {
  readonly notes: Readonly<Record<string, Note>> | undefined;
  readonly back: { readonly name: string; readonly note: Note | null }[];
} {
  // Without a prototype: a name may be anything, also what every object has.
  const notes: Record<string, Note> = Object.assign(Object.create(null) as object, before);
  const back = entries.map(({ name }) => ({ name, note: notes[name] ?? null }));
  for (const { name, note } of entries) {
    if (note === null) delete notes[name];
    else notes[name] = note;
  }
  const names = Object.keys(notes);
  return { notes: names.length === 0 ? undefined : Object.fromEntries(Object.entries(notes)), back };
}
