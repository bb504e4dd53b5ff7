/** A field of one line or several, as far as this looks at it. */
interface Field {
  readonly maxLength: number;
  readonly value: string;
  readonly selectionStart: number | null;
  readonly selectionEnd: number | null;
}

/** How many letters of a text a field would leave out when it is pasted there, since it holds no more. */
export function lettersLeftOut(field: Field, pasted: string): number {
  if (!(field.maxLength >= 0)) return 0;
  const chosen = (field.selectionEnd ?? 0) - (field.selectionStart ?? 0);
  return Math.max(0, field.value.length - chosen + pasted.length - field.maxLength);
}
