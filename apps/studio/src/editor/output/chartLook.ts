import { CORNER, colour, family } from '../../ui/theme';

/** How charts look here: the strong colour for what is measured, hairlines for the scale. */
export const CHART = {
  backgroundGradientFrom: colour.card,
  backgroundGradientTo: colour.card,
  fillShadowGradientFrom: colour.blue,
  fillShadowGradientTo: colour.blue,
  fillShadowGradientFromOpacity: 1,
  fillShadowGradientToOpacity: 1,
  decimalPlaces: 0,
  color: () => colour.hairline,
  labelColor: () => colour.quiet,
  propsForLabels: { fontFamily: family.text, fontSize: 11 },
  propsForBackgroundLines: { strokeDasharray: '' },
};

export const chartStyle = { borderRadius: CORNER };
