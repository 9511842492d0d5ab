import { TEMPLATES } from '@fresh-reel/templates';
import { Redirect, useLocalSearchParams } from 'expo-router';
import { TemplateDetails } from '@/templates/TemplateDetails';

export default function TemplateRoute() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const template = TEMPLATES.find((t) => t.id === id);
  return template ? <TemplateDetails template={template} /> : <Redirect href="/templates" />;
}
