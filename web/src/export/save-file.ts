/** Saves a file through the browser. @returns its name */
export function save(blob: Blob, name: string): string {
  const address = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(address), 10_000);
  return name;
}

/** A picture in a picture loads no files, so the font goes along inside. */
export async function dataAddress(address: string): Promise<string> {
  return blobAddress(await (await fetch(address)).blob());
}

/** A file as an address that holds all of it. */
export async function blobAddress(blob: Blob): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(reader.result as string);
    reader.onerror = () => reject(new Error('The file could not be read.'));
    reader.readAsDataURL(blob);
  });
}

export async function drawn(svg: string, width: number, height: number): Promise<Blob> {
  const image = new Image(width, height);
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  canvas.getContext('2d')!.drawImage(image, 0, 0, width, height);
  return new Promise((resolve, reject) =>
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('The picture could not be drawn.'))), 'image/png'),
  );
}
