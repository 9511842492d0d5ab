import { Redirect, useLocalSearchParams } from 'expo-router';
import { useTemplates } from '@/storage/useTemplates';
import { TemplateDetails } from '@/templates/TemplateDetails';

export { Stumbled as ErrorBoundary } from '@/shell/Stumbled';

export default function TemplateRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const { templates, own, isLoading } = useTemplates();
  const template = templates.find((t) => t.id === id);
  if (template) return <TemplateDetails template={template} isOwn={own.has(template.id)} />;
  return isLoading ? null : <Redirect href="/templates" />;
}
