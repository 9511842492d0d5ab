export { ReelsPlace as default } from '@/reels/ReelsPlace';
