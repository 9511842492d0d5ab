import { View } from 'react-native';
import BarChart from 'react-native-chart-kit/dist/BarChart';
import { CHART, chartStyle } from './chartLook';

const HEIGHT = 140;

/** Seconds of each part, numbered as they are listed below it. */
export default function CostChart({ seconds, width }: { seconds: readonly number[]; width: number }) {
  return (
    <View accessible accessibilityRole="image" accessibilityLabel="Seconds of each part" testID="cost-chart">
      <BarChart
        data={{ labels: seconds.map((_, i) => String(i + 1)), datasets: [{ data: [...seconds] }] }}
        width={width}
        height={HEIGHT}
        fromZero
        showBarTops={false}
        yAxisLabel=""
        yAxisSuffix=" s"
        segments={2}
        xLabelsOffset={-8}
        chartConfig={{ ...CHART, barPercentage: 0.6 }}
        style={chartStyle}
      />
    </View>
  );
}
