import type { Heard } from '@fresh-reel/core';
import { View } from 'react-native';
import LineChart from 'react-native-chart-kit/dist/line-chart';
import { colour } from '../../ui/theme';
import { secondsText } from '../../ui/units';
import { CHART, chartStyle } from './chartLook';

interface Props {
  readonly heard: Heard;
  readonly width: number;
  readonly wanted: number | undefined;
}

/** What is quieter is drawn as this: LUFS. */
const QUIETEST = -60;
const HEIGHT = 150;
/** Times written below. */
const TIMES = 4;

/** Loudness over time, with the loudness that is wanted as a line of its own. */
export default function CourseChart({ heard, width, wanted }: Props) {
  const data = heard.course.map((lufs) => Math.max(QUIETEST, lufs));
  const labels = data.map((_, i) => {
    const each = Math.ceil(data.length / TIMES);
    return i % each === 0 ? secondsText((i * heard.seconds) / data.length) : '';
  });
  const flat = (value: number) => data.map(() => value);
  return (
    <View
      accessible
      accessibilityRole="image"
      accessibilityLabel="Loudness over time"
      testID="loudness-chart"
    >
      <LineChart
        data={{
          labels,
          datasets: [
            { data, color: () => colour.blue, strokeWidth: 2 },
            ...(wanted === undefined
              ? []
              : [{ data: flat(wanted), color: () => colour.accent, strokeWidth: 1 }]),
            // The same scale whatever is heard.
            { data: [QUIETEST, 0], color: () => 'transparent', strokeWidth: 0 },
          ],
        }}
        width={width}
        height={HEIGHT}
        withDots={false}
        withShadow={false}
        withVerticalLines={false}
        segments={3}
        xLabelsOffset={-8}
        yAxisSuffix=" LUFS"
        chartConfig={CHART}
        style={chartStyle}
      />
    </View>
  );
}
