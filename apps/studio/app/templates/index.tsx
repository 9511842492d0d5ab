export { TemplatesPlace as default } from '@/templates/TemplatesPlace';
