import { withPath } from './upload-queue';

/** All files of a drop, folders opened, hidden files left out. Must be called within the drop event: the list is emptied after it. */
export async function droppedFiles(transfer: DataTransfer): Promise<File[]> {
  const entries = [...transfer.items].map((item) => item.webkitGetAsEntry()).filter((entry) => entry !== null);
  if (entries.length === 0) return [...transfer.files];
  return (await Promise.all(entries.map(filesOf))).flat().filter((file) => !file.name.startsWith('.'));
}

async function filesOf(entry: FileSystemEntry): Promise<File[]> {
  if (entry.isFile) {
    const file = await new Promise<File>((resolve, reject) => (entry as FileSystemFileEntry).file(resolve, reject));
    // `/Graduates/ada/1.jpg` is `ada/1.jpg` of the folder that was dropped.
    const parts = entry.fullPath.split('/').filter(Boolean);
    return [withPath(file, parts.slice(parts.length > 1 ? 1 : 0).join('/'))];
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader();
  const inside: FileSystemEntry[] = [];
  // A reader hands out at most a hundred entries at a time.
  for (;;) {
    const some = await new Promise<FileSystemEntry[]>((resolve, reject) => reader.readEntries(resolve, reject));
    if (some.length === 0) break;
    inside.push(...some);
  }
  return (await Promise.all(inside.map(filesOf))).flat();
}
