/** The text of a table’s file. Spreadsheets save in their own country’s ways; what is no UTF-8 is read as Western European. */
export function tableText(bytes: ArrayBuffer | Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

/** Why a file is no table that can be read, by how it begins; null when it may be one. */
export function faultOfTableFile(name: string, bytes: Uint8Array): string | null {
  const begins = (...codes: readonly number[]) => codes.every((code, at) => bytes[at] === code);
  return begins(0x50, 0x4b) || begins(0xd0, 0xcf)
    ? `${name} is a spreadsheet’s own file. Save it there as CSV and bring that.`
    : null;
}
