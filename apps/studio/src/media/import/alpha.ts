/** Whether any of a picture is see-through, judged on a small copy (edges of a cut-out cover many pixels). */
export function hasAlpha(source: OffscreenCanvas | ImageBitmap): boolean {
  const small = new OffscreenCanvas(96, 96);
  const context = small.getContext('2d')!;
  context.drawImage(source, 0, 0, 96, 96);
  const { data } = context.getImageData(0, 0, 96, 96);
  for (let i = 3; i < data.length; i += 4) if (data[i]! < 250) return true;
  return false;
}
