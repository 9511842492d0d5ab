import { Link } from 'expo-router';
import type { ComponentProps } from 'react';
import { StyleSheet } from 'react-native';
import { Press } from './Press';

type Props = Omit<ComponentProps<typeof Press>, 'role' | 'onPress'> & {
  /** A path within the app. */
  readonly href: string;
};

/** A link as the web has them: it opens in a new tab by middle click, and its address can be copied. */
export function LinkPress({ href, style, ...rest }: Props) {
  return (
    <Link href={href as never} asChild>
      {/* What makes one of the two merges plain styles alone. */}
      <Press {...rest} role="link" style={StyleSheet.flatten(style)} />
    </Link>
  );
}
