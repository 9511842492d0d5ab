import { useQuery } from '@tanstack/react-query';
import { View } from 'react-native';
import Svg, { Path } from 'react-native-svg';
import { readWave } from '../media/import/thumb';
import { colour } from '../ui/theme';

const HEIGHT = 100;

/** The shape of a sound over its length. */
export function Wave({ hash }: { hash: string }) {
  const { data } = useQuery({ queryKey: ['wave', hash], queryFn: () => readWave(hash) });
  if (!data) return <View />;
  const middle = HEIGHT / 2;
  const bars = data.map((peak, i) => {
    const half = Math.max(0.6, peak * (middle - 6));
    return `M ${i + 0.5} ${middle - half} V ${middle + half}`;
  });
  return (
    <Svg
      width="100%"
      height="100%"
      viewBox={`0 0 ${data.length} ${HEIGHT}`}
      preserveAspectRatio="none"
      aria-hidden
    >
      <Path d={bars.join(' ')} stroke={colour.ink} strokeWidth={0.7} />
    </Svg>
  );
}
