interface ColourFieldProps {
  readonly label: string;
  readonly value: string;
  readonly onChange: (colour: string) => void;
}

/** A colour that is picked. */
export function ColourField({ label, value, onChange }: ColourFieldProps) {
  return (
    <input
      type="color"
      aria-label={label}
      title={label}
      value={value}
      onChange={(event) => onChange(event.target.value)}
      className="h-7 w-10 shrink-0 rounded-md border border-rule bg-field p-0.5"
    />
  );
}
