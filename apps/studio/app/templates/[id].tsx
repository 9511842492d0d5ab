import { Redirect, useLocalSearchParams } from 'expo-router';
import { useTemplate } from '@/storage/useTemplates';
import { TemplateDetails } from '@/templates/TemplateDetails';

export { Stumbled as ErrorBoundary } from '@/shell/Stumbled';

export default function TemplateRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const { template, isOwn, isLoading } = useTemplate(id);
  if (template) return <TemplateDetails template={template} isOwn={isOwn} />;
  return isLoading ? null : <Redirect href="/templates" />;
}
