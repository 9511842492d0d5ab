export { WorkshopPlace as default } from '@/workshop/WorkshopPlace';
