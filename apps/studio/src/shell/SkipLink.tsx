import { useState } from 'react';
import { StyleSheet } from 'react-native';
import { Press } from '../ui/Press';
import { Txt } from '../ui/Txt';
import { CORNER, colour, TOUCH } from '../ui/theme';

/** The first stop of the Tab key: past what is the same on every page (WCAG 2.2, 2.4.1). Seen while it has the keys. */
export function SkipLink() {
  const [seen, setSeen] = useState(false);
  return (
    <Press
      role="button"
      onPress={() => document.getElementById('content')?.focus()}
      onFocus={() => setSeen(true)}
      onBlur={() => setSeen(false)}
      style={[styles.link, !seen && styles.away]}
      testID="skip"
    >
      <Txt kind="strong" tone="white">
        To the content
      </Txt>
    </Press>
  );
}

const styles = StyleSheet.create({
  link: {
    position: 'absolute',
    left: 12,
    top: 8,
    zIndex: 40,
    minHeight: TOUCH,
    justifyContent: 'center',
    paddingHorizontal: 16,
    borderRadius: CORNER,
    backgroundColor: colour.ink,
  },
  away: { top: -100 },
});
