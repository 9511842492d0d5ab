import { Redirect, useLocalSearchParams } from 'expo-router';
import { useMemo } from 'react';
import { useSomeTemplates } from '@/storage/useTemplates';
import { ComparePlace } from '@/templates/ComparePlace';

export { Stumbled as ErrorBoundary } from '@/shell/Stumbled';

export default function CompareRoute() {
  const { ids = '' } = useLocalSearchParams<{ ids: string }>();
  const { templates, isLoading } = useSomeTemplates(
    useMemo(() => [...new Set(ids.split(','))].slice(0, 4), [ids]),
  );
  if (templates.length > 0 && !isLoading) return <ComparePlace templates={templates} />;
  return isLoading ? null : <Redirect href="/templates" />;
}
