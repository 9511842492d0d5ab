import { Redirect, useLocalSearchParams } from 'expo-router';
import { Suspense, useMemo } from 'react';
import { later } from '@/shell/later';
import { useSomeTemplates } from '@/storage/useTemplates';

export { Stumbled as ErrorBoundary } from '@/shell/Stumbled';

const ComparePlace = later(async () => (await import('@/templates/ComparePlace')).ComparePlace);

export default function CompareRoute() {
  const { ids = '' } = useLocalSearchParams<{ ids: string }>();
  const { templates, isLoading } = useSomeTemplates(
    useMemo(() => [...new Set(ids.split(','))].slice(0, 4), [ids]),
  );
  if (templates.length > 0 && !isLoading)
    return (
      <Suspense>
        <ComparePlace templates={templates} />
      </Suspense>
    );
  return isLoading ? null : <Redirect href="/templates" />;
}
