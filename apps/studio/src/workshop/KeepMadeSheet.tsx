import { DocumentError, messageOf, openDocument, templateKind } from '@fresh-reel/core';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { TemplatePreview } from '../preview/TemplatePreview';
import { useStoreTemplate, useTemplates } from '../storage/useTemplates';
import { NameAndSet } from '../templates/NameAndSet';
import { Banner } from '../ui/Banner';
import { Button } from '../ui/Button';
import { Sheet } from '../ui/Sheet';
import { useToast } from '../ui/Toast';
import { Txt } from '../ui/Txt';
import { CORNER, colour } from '../ui/theme';
import { useMade } from './work/useWork';

/** Keeps what is on the bench among the user's templates: as a new one, and from then on as its editions. */
export function KeepMadeSheet({ onClose }: { onClose: () => void }) {
  const { template, make } = useMade();
  const { own } = useTemplates();
  const store = useStoreTemplate();
  const router = useRouter();
  const toast = useToast();
  const [name, setName] = useState(template.name);
  const [set, setSet] = useState(template.set ?? '');
  const [fault, setFault] = useState<string>();
  const isEdition = own.has(template.id);
  const keep = async () => {
    try {
      const { set: _, ...rest } = template;
      const called = { ...rest, name: name.trim(), ...(set.trim() ? { set: set.trim() } : {}) };
      // Checked as what comes from outside is: what is kept opens again.
      const whole = openDocument(templateKind, JSON.parse(JSON.stringify(called)));
      make(() => whole);
      await store(whole, isEdition ? 'edition' : 'another');
      onClose();
      toast({
        text: isEdition ? `“${whole.name}” has a new edition.` : `“${whole.name}” stands in Templates now.`,
        action: { title: 'See it', run: () => router.push(`/templates/${whole.id}`) },
      });
    } catch (error) {
      setFault(error instanceof DocumentError ? error.message : messageOf(error));
    }
  };
  return (
    <Sheet title="Keep it among your templates" onClose={onClose} testID="keep-made-sheet">
      <View style={styles.picture}>
        <TemplatePreview template={template} shape={template.shape} moving />
      </View>
      <NameAndSet name={name} onName={setName} set={set} onSet={setSet} testID="keep-made" />
      <Txt kind="small" tone="quiet">
        {isEdition
          ? 'It is there already: this becomes its newest edition. The ones before stay with it, and reels keep theirs until the new one is taken there.'
          : 'It stands in Templates then. The bench stays here, to go on with.'}
      </Txt>
      {fault && <Banner kind="fault">{fault}</Banner>}
      <View style={styles.row}>
        <Button
          title={isEdition ? 'Keep as the newest edition' : 'Keep it'}
          kind="next"
          disabled={name.trim() === ''}
          onPress={() => void keep()}
          testID="keep-made-do"
        />
      </View>
    </Sheet>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row' },
  picture: { borderRadius: CORNER, overflow: 'hidden', backgroundColor: colour.surround },
});
