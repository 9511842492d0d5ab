import { useReelEditor } from '../editing/session/useReelEditor';
import { useSaveReelFile } from '../files/useSaveFile';
import { Banner } from '../ui/Banner';
import { Button } from '../ui/Button';
import { MissingFiles } from './fill/MissingFiles';

/** What stands above every step while something is wrong. */
export function Warnings() {
  const { reel, save, retrySave, elsewhere, takeOver } = useReelEditor();
  const saveReelFile = useSaveReelFile();
  return (
    <>
      <MissingFiles />
      {elsewhere && (
        <Banner
          kind="info"
          testID="elsewhere"
          action={<Button title="Edit here instead" small onPress={takeOver} testID="take-over" />}
        >
          This reel is open in another tab. What is changed there shows here.
        </Banner>
      )}
      {save.kind === 'fault' && (
        <Banner
          kind="fault"
          testID="save-fault"
          action={
            <>
              <Button title="Try again" small onPress={retrySave} testID="save-again" />
              <Button title="Save as a file" small onPress={() => saveReelFile(reel)} testID="save-file" />
            </>
          }
        >
          {`Not saved. ${save.message}`}
        </Banner>
      )}
    </>
  );
}
