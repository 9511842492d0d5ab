export { RendersPlace as default } from '@/render/RendersPlace';
