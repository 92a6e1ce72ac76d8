import fontFile from '@fontsource-variable/source-sans-3/files/source-sans-3-latin-wght-normal.woff2?url';
import { dataAddress } from './save-file.ts';

let known: Promise<string> | undefined;

/** The font of pictures as a data address, read once: a picture loads no files. */
export function fontAddress(): Promise<string> {
  known ??= dataAddress(fontFile).catch((reason: unknown) => {
    known = undefined;
    throw reason;
  });
  return known;
}
