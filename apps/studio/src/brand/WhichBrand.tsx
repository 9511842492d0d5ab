import { type Brand, freeName, messageOf } from '@fresh-reel/core';
import { StyleSheet, View } from 'react-native';
import { useSaveThingsFile } from '../files/useSaveFile';
import { newId } from '../storage/ids';
import { useRemoveBrand, useSaveBrand, useSetPreferences } from '../storage/queries';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { useToast } from '../ui/Toast';

/** The brands there are: one is worked with, and another can be begun. */
export function WhichBrand({
  brands,
  brand,
  empty,
}: {
  brands: readonly Brand[];
  brand: Brand;
  empty: Brand;
}) {
  const setPreferences = useSetPreferences();
  const { mutate } = useSaveBrand();
  const toast = useToast();
  const begin = () => {
    const name = freeName('New brand', (n) => brands.some((b) => b.name === n), ' ');
    const made: Brand = { ...empty, id: newId(), name };
    mutate({ brand: made }, { onError: (error) => toast({ text: messageOf(error) }) });
    setPreferences({ brand: made.id });
  };
  return (
    <View style={styles.row}>
      {brands.length > 1 && (
        <Choice
          label="Brand"
          testID="which-brand"
          value={brand.id}
          options={brands}
          onChange={(id) => setPreferences({ brand: id })}
        />
      )}
      <Button title="Another brand" icon="plus" onPress={begin} testID="new-brand" />
    </View>
  );
}

/** Takes a brand out; a notice puts it back. */
export function TakeBrandOut({ brand }: { brand: Brand }) {
  const { remove, restore } = useRemoveBrand();
  const toast = useToast();
  const failed = (error: unknown) => toast({ text: messageOf(error) });
  const save = useSaveThingsFile();
  return (
    <View style={styles.row}>
      <Button
        title="Save this brand as a file"
        icon="save"
        onPress={() => save({ name: brand.name, things: { brands: [brand] } })}
        testID="save-brand-file"
      />
      <Button
        title="Take this brand out"
        icon="trash"
        onPress={() =>
          void remove(brand).then(
            () =>
              toast({
                text: `“${brand.name}” is taken out. What wears it stays as it is.`,
                action: { title: 'Put it back', run: () => void restore(brand).catch(failed) },
              }),
            failed,
          )
        }
        testID="take-out-brand"
      />
    </View>
  );
}

const styles = StyleSheet.create({ row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 } });
