export { ReelsPlace as default } from '@/reel/ReelsPlace';
