import type { ReactNode } from 'react';
import { StyleSheet, Text, type TextProps } from 'react-native';
import { colour, family, size } from './theme';
import { webProps } from './web';

type Kind = 'display' | 'title' | 'lead' | 'body' | 'strong' | 'small' | 'label';

interface Props extends TextProps {
  readonly kind?: Kind;
  readonly tone?: 'ink' | 'quiet' | 'accent' | 'red' | 'leaf' | 'amber' | 'blue' | 'white';
  /** Heading level for assistive technology. */
  readonly level?: 1 | 2 | 3;
  readonly children: ReactNode;
}

/** Words of the interface. */
export function Txt({ kind = 'body', tone = 'ink', level, style, children, ...rest }: Props) {
  const heading = level ? webProps({ role: 'heading', 'aria-level': level }) : {};
  return (
    <Text
      {...heading}
      {...rest}
      style={[styles[kind], { color: tone === 'white' ? colour.card : colour[tone] }, style]}
    >
      {children}
    </Text>
  );
}

const styles = StyleSheet.create({
  display: { fontFamily: family.heading, fontSize: size.display, lineHeight: 34, letterSpacing: -0.6 },
  title: { fontFamily: family.heading, fontSize: size.title, lineHeight: 27, letterSpacing: -0.3 },
  lead: { fontFamily: family.medium, fontSize: size.lead, lineHeight: 23 },
  body: { fontFamily: family.text, fontSize: size.body, lineHeight: 22 },
  strong: { fontFamily: family.medium, fontSize: size.body, lineHeight: 22 },
  small: { fontFamily: family.text, fontSize: size.small, lineHeight: 18 },
  label: { fontFamily: family.medium, fontSize: size.small, lineHeight: 18 },
});
