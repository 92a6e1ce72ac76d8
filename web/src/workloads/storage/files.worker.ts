/** Whether a worker gets files of its own here, which a page alone cannot tell: some browsers give them to workers only. */
export type FilesFound = 'able' | 'none' | 'no-direct' | { refused: string };

const find = async (): Promise<FilesFound> => {
  if (typeof navigator.storage?.getDirectory !== 'function' || typeof FileSystemFileHandle !== 'function') return 'none';
  if (!('createSyncAccessHandle' in FileSystemFileHandle.prototype)) return 'no-direct';
  try {
    await navigator.storage.getDirectory();
    return 'able';
  } catch (error) {
    return { refused: error instanceof Error ? error.name : String(error) };
  }
};

void find().then((found) => self.postMessage(found));
