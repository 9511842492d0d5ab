import { Redirect, useLocalSearchParams } from 'expo-router';
import { useMemo } from 'react';
import { useTemplates } from '@/storage/useTemplates';
import { ComparePlace } from '@/templates/ComparePlace';

export { Stumbled as ErrorBoundary } from '@/shell/Stumbled';

export default function CompareRoute() {
  const { ids = '' } = useLocalSearchParams<{ ids: string }>();
  const { templates, isLoading } = useTemplates();
  const compared = useMemo(
    () => [...new Set(ids.split(','))].flatMap((id) => templates.find((t) => t.id === id) ?? []).slice(0, 4),
    [ids, templates],
  );
  if (compared.length > 0) return <ComparePlace templates={compared} />;
  return isLoading ? null : <Redirect href="/templates" />;
}
