/** Asks for files with the browser's own chooser. None when the user changes their mind. */
export function pickFiles(accept: string, many = true, camera = false, folder = false): Promise<File[]> {
  return new Promise((resolve) => {
    const input = document.createElement('input');
    input.type = 'file';
    input.accept = accept;
    input.multiple = many;
    // On a phone this opens the camera; elsewhere it changes nothing.
    if (camera) input.setAttribute('capture', 'environment');
    if (folder) input.setAttribute('webkitdirectory', '');
    input.style.display = 'none';
    const done = (files: File[]) => {
      input.remove();
      resolve(files);
    };
    input.addEventListener('change', () => done([...(input.files ?? [])]));
    input.addEventListener('cancel', () => done([]));
    document.body.append(input);
    input.click();
  });
}

/** Asks for a folder: all files in it, and in the folders in it. */
export function pickFolder(): Promise<File[]> {
  return pickFiles('', true, false, true);
}

/** Asks for one file. */
export async function pickFile(accept: string): Promise<File | undefined> {
  return (await pickFiles(accept, false))[0];
}

const CLIP_TYPES = 'video/mp4,video/quicktime,video/webm,video/x-matroska,.mkv,.mov';
export const SOUND_FILES = 'audio/*,.wav,.mp3,.m4a,.ogg,.opus,.flac';
export const FONT_TYPES = '.ttf,.otf,.woff,.woff2';
export const PICTURE_FILES = 'image/png,image/jpeg,image/webp,image/gif,image/avif,image/svg+xml,.svg';
/** What a slot for something seen takes. */
export const SEEN_FILES = `${PICTURE_FILES},${CLIP_TYPES}`;
export const SHELF_FILES = `${SEEN_FILES},${SOUND_FILES},${FONT_TYPES}`;
/** What a phone's camera gives. */
export const CAMERA_FILES = 'image/*,video/*';

/** Gives bytes or text to the user as a download. */
export function saveFile(content: Blob, name: string): void {
  const url = URL.createObjectURL(content);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  document.body.append(link);
  link.click();
  link.remove();
  // The browser needs the address until it has begun to read.
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}
