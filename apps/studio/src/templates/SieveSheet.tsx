import { StyleSheet, View } from 'react-native';
import { FRAME_SHAPES } from '../preview/templateFacts';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Sheet } from '../ui/Sheet';
import { Toggle } from '../ui/Toggle';
import { Txt } from '../ui/Txt';
import { COUNTS, LENGTHS, type Sieve } from './sieve';

interface Props {
  readonly sieve: Sieve;
  readonly onChange: (sieve: Sieve) => void;
  readonly onClose: () => void;
  readonly moods: readonly string[];
  readonly sets: readonly string[];
  /** How many templates answer now. */
  readonly count: number;
  /** How many pictures and clips are on the shelf. */
  readonly pictures: number;
}

const ANY = { id: 'any', name: 'Any' } as const;
const named = (values: readonly string[]) => values.map((value) => ({ id: value, name: value }));

/** What templates are looked for by, besides their use. */
export function SieveSheet({ sieve, onChange, onClose, moods, sets, count, pictures }: Props) {
  const row = <K extends keyof Sieve>(
    field: K,
    label: string,
    options: readonly { readonly id: string; readonly name: string }[],
  ) => (
    <View style={styles.group}>
      <Txt kind="strong">{label}</Txt>
      <Choice
        label={label}
        testID={`sieve-${field}`}
        value={(sieve[field] as string | undefined) ?? ANY.id}
        options={[ANY, ...options]}
        onChange={(value) => onChange({ ...sieve, [field]: value === ANY.id ? undefined : value })}
      />
    </View>
  );
  return (
    <Sheet title="Find by" onClose={onClose} testID="sieve-sheet">
      <View style={styles.all}>
        {row('set', 'Set', named(sets))}
        {row('mood', 'Mood', named(moods))}
        {row('shape', 'Frame it was made for', FRAME_SHAPES)}
        {row('length', 'Length', LENGTHS)}
        {row('pictures', 'Pictures and logos', COUNTS)}
        {row('words', 'Texts and lists', COUNTS)}
        <Toggle
          label={`Suits my pictures (${pictures} on the shelf)`}
          value={sieve.suits ?? false}
          onChange={(suits) => onChange({ ...sieve, suits })}
          testID="sieve-suits"
        />
        <View style={styles.end}>
          <Button
            title={count === 1 ? 'Show 1 template' : `Show ${count} templates`}
            kind="next"
            onPress={onClose}
            testID="sieve-done"
          />
          <Button
            title="Any of them"
            onPress={() => onChange(sieve.use ? { use: sieve.use } : {})}
            testID="sieve-clear"
          />
        </View>
      </View>
    </Sheet>
  );
}

const styles = StyleSheet.create({
  all: { gap: 18, paddingBottom: 16 },
  group: { gap: 8 },
  end: { flexDirection: 'row', flexWrap: 'wrap', gap: 10 },
});
