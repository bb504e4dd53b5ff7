interface ColourFieldProps {
  readonly label: string;
  readonly value: string;
  /** It goes from key to key, which is changed where the keys are seen. */
  readonly keyed?: boolean;
  readonly onChange: (colour: string) => void;
}

/** A colour that is picked. */
export function ColourField({ label, value, keyed = false, onChange }: ColourFieldProps) {
  return (
    <input
      type="color"
      aria-label={label}
      title={keyed ? `${label} goes from key to key: open the slide wide to change it` : label}
      disabled={keyed}
      value={value}
      onChange={(event) => onChange(event.target.value)}
      className="h-7 w-10 shrink-0 rounded-md border border-rule bg-field p-0.5 disabled:opacity-50"
    />
  );
}
