export { BrandPlace as default } from '@/brand/BrandPlace';
