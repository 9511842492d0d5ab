export { RendersPlace as default } from '@/renders/RendersPlace';
