import { useBrand, usePreferences, useSetPreferences } from '../storage/queries';
import { Toggle } from '../ui/Toggle';

/** Whether what is looked at and begun wears the brand that is worked with; nothing where there is none. */
export function WearingToggle() {
  const brand = useBrand();
  const { wearing } = usePreferences();
  const setPreferences = useSetPreferences();
  if (!brand) return null;
  return (
    <Toggle
      label="Wearing my brand"
      value={wearing}
      onChange={(on) => setPreferences({ wearing: on })}
      testID="wearing-brand"
    />
  );
}
