export { FONTS } from '@fresh-reel/fonts';
export { unpackFont } from '@fresh-reel/fonts/unpack';
