/** Rows as CSV (RFC 4180) with a byte order mark, for spreadsheets. What would be taken for a formula there begins with an apostrophe. */
export function asCsv(rows: readonly (readonly string[])[]): string {
  return `\uFEFF${rows.map((row) => row.map(cell).join(',')).join('\r\n')}\r\n`;
}

function cell(value: string): string {
  const plain = FORMULA.test(value) ? `'${value}` : value;
  return /[",;\r\n]/.test(plain) ? `"${plain.replaceAll('"', '""')}"` : plain;
}

const FORMULA = /^[=+\-@\t\r]/;

/** What was kept from being a formula is itself again. */
export const uncelled = (value: string): string =>
  value.startsWith("'") && FORMULA.test(value.slice(1)) ? value.slice(1) : value;
