import { pickFiles, SHELF_FILES } from '../disk/pickFile';
import { TakingIn } from '../media/import/TakingIn';
import { useImport } from '../media/import/useImport';
import { ShelfSheet } from '../shelf/ShelfSheet';
import type { MediaRecord } from '../storage/media';
import { Button } from '../ui/Button';
import { useToast } from '../ui/Toast';

interface Props {
  readonly onChoose: (clip: MediaRecord) => void;
  readonly onClose: () => void;
}

/** Which clip a title is put over: one of the shelf, or one that is added now. */
export function FootageSheet({ onChoose, onClose }: Props) {
  const taking = useImport();
  const toast = useToast();
  const add = async () => {
    const files = await pickFiles(SHELF_FILES, false);
    if (files.length === 0) return;
    const [came] = await taking.take(files);
    if (came?.kind === 'media' && came.record.kind === 'clip') onChoose(came.record);
    else if (came) toast({ text: 'That is no clip. It is kept; choose a clip to put the title over.' });
  };
  return (
    <ShelfSheet title="Over which clip?" kinds={['clip']} onChoose={onChoose} onClose={onClose}>
      <Button
        title="Add a clip"
        icon="plus"
        disabled={taking.coming !== undefined}
        onPress={() => void add()}
        testID="footage-add"
      />
      <TakingIn taking={taking} />
    </ShelfSheet>
  );
}
