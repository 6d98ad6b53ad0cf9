const PNG_SIZE = 1024;

/** A drawing as a picture of dots. */
export async function pngOf(svg: string): Promise<Blob> {
  const image = new Image();
  image.src = `data:image/svg+xml,${encodeURIComponent(svg)}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = PNG_SIZE;
  canvas.height = PNG_SIZE;
  const context = canvas.getContext('2d');
  if (!context) throw new Error('This browser can draw no pictures.');
  context.imageSmoothingEnabled = false;
  context.drawImage(image, 0, 0, PNG_SIZE, PNG_SIZE);
  return new Promise((resolve, reject) =>
    canvas.toBlob((png) => (png ? resolve(png) : reject(new Error('This browser can draw no pictures.'))), 'image/png'),
  );
}

/** Hands a file to the reader. */
export function saveAs(name: string, file: Blob): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(file);
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}
