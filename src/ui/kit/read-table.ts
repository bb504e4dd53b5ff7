import Papa from 'papaparse';
import { faultOfTableFile, tableText } from '../../core/tables/table-text';

/** Larger ones are no table of ours. */
const LARGEST_BYTES = 20_000_000;

/** Cells of a CSV file, whatever parts them. */
export async function readTable(
  file: File,
): Promise<{ readonly rows: string[][]; readonly problem: null } | { readonly rows: null; readonly problem: string }> {
  const no = (problem: string) => ({ rows: null, problem });
  if (file.size > LARGEST_BYTES) return no(`${file.name} is too large to be such a table.`);
  const bytes = new Uint8Array(await file.arrayBuffer());
  const fault = faultOfTableFile(file.name, bytes);
  if (fault) return no(fault);
  const { data, errors } = Papa.parse<string[]>(tableText(bytes), { skipEmptyLines: false });
  const torn = errors.find(({ type }) => type === 'Quotes');
  if (torn) return no(`${file.name} is no table that can be read: row ${(torn.row ?? 0) + 1} has a quote too many.`);
  return { rows: data, problem: null };
}
