/** What a file is by its name: enough to say what may come of a row before anything of it is read. */
export type NamedKind = 'picture' | 'clip' | 'sound';

const ENDINGS: Readonly<Record<NamedKind, string>> = {
  picture:
    'jpg jpeg png gif webp avif heic heif tif tiff svg dng cr2 cr3 crw nef nrw arw sr2 orf rw2 raf pef srw x3f 3fr iiq mrw',
  clip: 'mp4 mov webm mkv avi m4v',
  sound: 'mp3 m4a wav flac ogg opus aac',
};

const KINDS = new Map(
  (Object.keys(ENDINGS) as NamedKind[]).flatMap((kind) => ENDINGS[kind].split(' ').map((ending) => [ending, kind])),
);

/** @returns null for a file that is neither of them */
export function kindByName(path: string): NamedKind | null {
  return KINDS.get(/\.([^./]+)$/.exec(path)?.[1]?.toLowerCase() ?? '') ?? null;
}
