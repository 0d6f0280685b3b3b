/** Every file that was dropped, those in folders too. */
export async function droppedFiles(dropped: DataTransfer): Promise<File[]> {
  const entries = [...dropped.items]
    .map((item) => item.webkitGetAsEntry())
    .filter((entry) => entry !== null);
  if (entries.length === 0) return [...dropped.files];
  return (await Promise.all(entries.map(filesUnder))).flat();
}

async function filesUnder(entry: FileSystemEntry): Promise<File[]> {
  if (entry.isFile) {
    const file = await new Promise<File>((done, failed) => {
      (entry as FileSystemFileEntry).file(done, failed);
    });
    return [file];
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader();
  const found: FileSystemEntry[] = [];
  for (;;) {
    // a reader gives a hundred entries at a time
    const some = await new Promise<FileSystemEntry[]>((done, failed) => {
      reader.readEntries(done, failed);
    });
    if (some.length === 0) break;
    found.push(...some);
  }
  return (await Promise.all(found.map(filesUnder))).flat();
}
