import type { AssetFacts } from '../show/asset-facts';
import type { AssetId } from '../show/ids';
import type { Mark } from '../show/mark';

/**
 * Ratings of XMP (ISO 16684-1): −1 refused, 0 none, 1…5. Marks are fewer: what was refused is left out, three and four are kept, five lingers; one and two say
 * that a picture is there, and no more.
 */
export function markOfRating(rating: number): Mark | null {
  if (rating === -1) return 'leave-out';
  if (rating >= 5) return 'linger';
  return rating >= 3 ? 'keep' : null;
}

const RATINGS: Readonly<Record<Mark, number>> = { 'leave-out': -1, keep: 4, linger: 5 };

export const isRating = (rating: number): boolean =>
  rating === -1 || (Number.isInteger(rating) && rating >= 1 && rating <= 5);

const NAMESPACE = 'http://ns.adobe.com/xap/1.0/';

/** The rating in the XMP of a file beside a picture, whatever prefix it uses; null when there is none. */
export function ratingInXmp(text: string): number | null {
  const bound = [...text.matchAll(/xmlns:([\w-]+)\s*=\s*["']([^"']*)["']/g)].find(([, , to]) => to === NAMESPACE);
  if (!bound) return null;
  const name = `${bound[1]!.replace(/[^\w-]/g, '')}:Rating`;
  const found = new RegExp(`\\b${name}\\s*=\\s*["']\\s*(-?\\d+)\\s*["']|<${name}\\s*>\\s*(-?\\d+)\\s*</${name}>`).exec(
    text,
  );
  const rating = Number(found?.[1] ?? found?.[2] ?? NaN);
  return isRating(rating) ? rating : null;
}

/** A mark as XMP, to lie beside the picture. */
export function xmpOf(mark: Mark): string {
  return `<?xpacket begin="\uFEFF" id="W5M0MpCehiHzreSzNTczkc9d"?>
<x:xmpmeta xmlns:x="adobe:ns:meta/">
 <rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">
  <rdf:Description rdf:about="" xmlns:xmp="${NAMESPACE}" xmp:Rating="${RATINGS[mark]}"/>
 </rdf:RDF>
</x:xmpmeta>
<?xpacket end="w"?>
`;
}

interface RatedFile {
  readonly assetId: AssetId;
  readonly facts: AssetFacts | null;
  readonly rating?: number;
}

interface NamedFile {
  readonly assetId: AssetId;
  readonly fileName: string;
  readonly facts: AssetFacts | null;
}

const plain = (name: string) => name.normalize('NFC').toLowerCase();
const stemOf = (name: string) => name.replace(/\.[^.]*$/, '');

/** What the file beside a picture says of it: `a.xmp` and `a.jpg.xmp` both lie beside `a.jpg`. @param beside ratings by the names of `.xmp` files */
export function ratingBeside(fileName: string, beside: ReadonlyMap<string, number>): number | null {
  const wanted = [plain(fileName), plain(stemOf(fileName))];
  for (const name of wanted) for (const [xmp, rating] of beside) if (plain(stemOf(xmp)) === name) return rating;
  return null;
}

/** Marks that ratings stand for: of files beside pictures, else in them. */
export function marksOfRatings(files: readonly RatedFile[]): { readonly assetId: AssetId; readonly mark: Mark }[] {
  return files.flatMap(({ assetId, facts, rating }) => {
    if (!facts || facts.kind === 'sound') return [];
    const found = rating ?? (facts.kind === 'picture' ? facts.rating : undefined);
    const mark = found === undefined ? null : markOfRating(found);
    return mark ? [{ assetId, mark }] : [];
  });
}

/** Marks as files to lie beside the pictures, by name. Where two pictures would share one, its name has their ending too. */
export function xmpFiles(
  files: readonly NamedFile[],
  marks: Readonly<Record<string, Mark>>,
): ReadonlyMap<string, string> {
  const marked = files.filter(({ assetId, facts }) => marks[assetId] && facts && facts.kind !== 'sound');
  const stems = new Map<string, number>();
  for (const { fileName } of files) stems.set(plain(stemOf(fileName)), (stems.get(plain(stemOf(fileName))) ?? 0) + 1);
  return new Map(
    marked.map(({ assetId, fileName }) => [
      `${stems.get(plain(stemOf(fileName)))! > 1 ? fileName : stemOf(fileName)}.xmp`,
      xmpOf(marks[assetId]!),
    ]),
  );
}
