import type { Brand } from '@fresh-reel/core';
import { StyleSheet, View } from 'react-native';
import { useBrands } from '../../storage/queries';
import { Toggle } from '../../ui/Toggle';

interface Props {
  readonly chosen: readonly Brand[];
  readonly onChosen: (brands: readonly Brand[]) => void;
}

/** Brands that a reel is also rendered in, besides as it is: a file for each client. */
export function AlsoBrands({ chosen, onChosen }: Props) {
  const { data: brands = [] } = useBrands();
  const without = (id: string) => chosen.filter((b) => b.id !== id);
  return (
    <View style={styles.brands}>
      {brands.map((brand) => (
        <Toggle
          key={brand.id}
          label={`Also in the brand “${brand.name}”`}
          value={chosen.some((b) => b.id === brand.id)}
          onChange={(on) => onChosen(on ? [...without(brand.id), brand] : without(brand.id))}
          testID={`also-brand-${brand.id}`}
        />
      ))}
    </View>
  );
}

const styles = StyleSheet.create({ brands: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 16 } });
