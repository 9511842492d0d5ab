import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Choice } from '../../ui/Choice';
import { Field } from '../../ui/Field';
import { Press } from '../../ui/Press';
import { Radio, RadioGroup } from '../../ui/RadioGroup';
import { Sheet } from '../../ui/Sheet';
import { Txt } from '../../ui/Txt';
import { colour } from '../../ui/theme';

/** Signs that keyboards hide, by what they are for. */
const SIGNS: readonly { readonly name: string; readonly signs: string }[] = [
  { name: 'Quotation marks and dashes', signs: '“ ” ‘ ’ „ ‚ « » ‹ › – — … · • ‣' },
  { name: 'Arrows', signs: '← → ↑ ↓ ↗ ↘ ↙ ↖ ↔ ⇒ ➔ ➜' },
  { name: 'Figures', signs: '½ ⅓ ¼ ¾ ⅔ × ÷ ± ≈ ≤ ≥ ° № % ‰ ² ³ ∞' },
  { name: 'Money and marks', signs: '€ £ $ ¥ ₹ ¢ © ® ™ § ¶ † ‡ & @ #' },
  { name: 'Ornaments', signs: '★ ☆ ✦ ✧ ● ○ ■ □ ▲ △ ◆ ◇ ✓ ✗ ♥ ♦ ♣ ♠ ♪ ♫' },
];

const LATEST = 12;
const MOST_FOUND = 96;
let latest: string[] = [];

/** The list of all emoji (Unicode's own names), loaded when it is asked for. */
function useEmoji() {
  const { data } = useQuery({
    queryKey: ['emoji'],
    queryFn: async () => (await import('unicode-emoji-json/data-by-group.json')).default,
  });
  return data ?? NONE;
}

const NONE: NonNullable<
  ReturnType<typeof useQuery<typeof import('unicode-emoji-json/data-by-group.json')>>['data']
> = [];

/** Emoji and special signs: a touch puts one where the words are being typed. */
export function SignSheet({ onChoose, onClose }: { onChoose: (sign: string) => void; onClose: () => void }) {
  const [kind, setKind] = useState<'signs' | 'emoji'>('emoji');
  const [search, setSearch] = useState('');
  const [group, setGroup] = useState(0);
  const words = search.trim().toLowerCase();
  const emoji = useEmoji();
  const found = useMemo(
    () =>
      words === ''
        ? []
        : emoji
            .flatMap((g) => g.emojis)
            .filter((e) => e.name.includes(words) || e.slug.includes(words))
            .slice(0, MOST_FOUND),
    [words, emoji],
  );
  const choose = (sign: string) => {
    latest = [sign, ...latest.filter((s) => s !== sign)].slice(0, LATEST);
    onChoose(sign);
  };
  const shown = words ? found : (emoji[group]?.emojis ?? []);
  return (
    <Sheet title="Emoji and signs" onClose={onClose} testID="sign-sheet">
      <Choice
        label="Kind"
        value={kind}
        options={[
          { id: 'emoji', name: 'Emoji' },
          { id: 'signs', name: 'Signs' },
        ]}
        onChange={setKind}
        testID="sign-kind"
      />
      {latest.length > 0 && (
        <Grid name="Used last" signs={latest.map((s) => [s, s] as const)} onChoose={choose} />
      )}
      {kind === 'signs' ? (
        SIGNS.map(({ name, signs }) => (
          <Grid
            key={name}
            name={name}
            signs={signs.split(' ').map((s) => [s, s] as const)}
            onChoose={choose}
          />
        ))
      ) : (
        <>
          <Field
            label="Find an emoji"
            hideLabel
            placeholder="Find an emoji, in English: kite, wind, cake"
            value={search}
            onChangeText={setSearch}
            testID="emoji-search"
          />
          {!words && (
            <RadioGroup
              label="Group of emoji"
              ids={emoji.map((g) => g.slug)}
              value={emoji[group]?.slug}
              onChange={(slug) => setGroup(emoji.findIndex((g) => g.slug === slug))}
              style={styles.groups}
            >
              {emoji.map((g, i) => (
                <Radio
                  key={g.slug}
                  id={g.slug}
                  label={g.name}
                  style={[styles.sign, i === group && styles.on]}
                >
                  <Txt style={styles.figure}>{g.emojis[0]!.emoji}</Txt>
                </Radio>
              ))}
            </RadioGroup>
          )}
          <Grid
            name={words ? `Found: ${shown.length}` : (emoji[group]?.name ?? '')}
            signs={shown.map((e) => [e.emoji, e.name] as const)}
            onChoose={choose}
          />
          {words !== '' && found.length === 0 && (
            <Txt tone="quiet">No emoji has that word in its English name.</Txt>
          )}
        </>
      )}
    </Sheet>
  );
}

function Grid({
  name,
  signs,
  onChoose,
}: {
  name: string;
  signs: readonly (readonly [string, string])[];
  onChoose: (sign: string) => void;
}) {
  return (
    <View>
      <Txt kind="label" tone="quiet">
        {name}
      </Txt>
      <View style={styles.grid}>
        {signs.map(([sign, label]) => (
          <Press
            key={sign}
            role="button"
            aria-label={label}
            onPress={() => onChoose(sign)}
            style={styles.sign}
            testID={`sign-${sign}`}
          >
            <Txt style={styles.figure}>{sign}</Txt>
          </Press>
        ))}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  groups: { flexDirection: 'row', flexWrap: 'wrap' },
  grid: { flexDirection: 'row', flexWrap: 'wrap' },
  sign: { width: 44, height: 44, alignItems: 'center', justifyContent: 'center', borderRadius: 8 },
  on: { backgroundColor: colour.accentTint },
  figure: { fontSize: 24, lineHeight: 30 },
});
