import { Redirect, useLocalSearchParams } from 'expo-router';
import { Suspense } from 'react';
import { later } from '@/shell/later';
import { useTemplate } from '@/storage/useTemplates';

export { Stumbled as ErrorBoundary } from '@/shell/Stumbled';

const TemplateDetails = later(async () => (await import('@/templates/TemplateDetails')).TemplateDetails);

export default function TemplateRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const { template, isOwn, isLoading } = useTemplate(id);
  if (template)
    return (
      <Suspense>
        <TemplateDetails template={template} isOwn={isOwn} />
      </Suspense>
    );
  return isLoading ? null : <Redirect href="/templates" />;
}
