export { ShelfPlace as default } from '@/shelf/ShelfPlace';
