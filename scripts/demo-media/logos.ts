/** The invented logos of the demo: the festival's own and three sponsors', as SVG text. */

/** A kite of four sails with a tail: the mark of the Thistledown Kite Weekend. */
const kite = (x: number, y: number, k: number) => `
  <g transform="translate(${x} ${y}) scale(${k})">
    <path d="M0 -100 L62 -14 L0 0 Z" fill="#F2A541"/>
    <path d="M0 -100 L-62 -14 L0 0 Z" fill="#E4572E"/>
    <path d="M-62 -14 L0 100 L0 0 Z" fill="#A83214"/>
    <path d="M62 -14 L0 100 L0 0 Z" fill="#E4572E"/>
    <path d="M0 100 C -26 128 26 148 0 178 C -22 204 20 222 2 250" fill="none" stroke="#A83214" stroke-width="7" stroke-linecap="round"/>
    <path d="M-4 138 l-26 -12 l4 26 z M4 196 l26 -10 l-6 26 z" fill="#F2A541"/>
  </g>`;

/** Festival mark with its name in drawn letters, so that it needs no font. */
export const festivalLogo = `<svg xmlns="http://www.w3.org/2000/svg" width="420" height="420" viewBox="0 0 420 420">
  <circle cx="210" cy="210" r="200" fill="#FFF6E6"/>
  <circle cx="210" cy="210" r="200" fill="none" stroke="#A83214" stroke-width="10"/>
  <path d="M20 292 C 90 240 150 262 214 282 C 282 304 340 268 402 262 C 384 352 306 410 210 410 C 120 410 46 360 20 292 Z" fill="#1E4D3B"/>
  <path d="M36 318 C 110 276 176 304 240 316 C 300 328 350 300 396 286 C 372 362 298 410 210 410 C 134 410 66 374 36 318 Z" fill="#2E6E55"/>
  ${kite(218, 138, 0.98)}
</svg>
`;

/** The festival mark alone, for small places. */
export const festivalBadge = `<svg xmlns="http://www.w3.org/2000/svg" width="200" height="200" viewBox="0 0 200 200">
  <circle cx="100" cy="100" r="96" fill="#1E4D3B"/>
  ${kite(100, 72, 0.5)}
</svg>
`;

/** Marram Ferry Bakery: a loaf under a sail. */
export const bakeryLogo = `<svg xmlns="http://www.w3.org/2000/svg" width="480" height="320" viewBox="0 0 480 320">
  <path d="M230 20 L230 176 L96 176 C 120 110 168 56 230 20 Z" fill="#C9892F"/>
  <path d="M250 50 C 312 84 352 126 372 176 L250 176 Z" fill="#E8B765"/>
  <path d="M60 200 H420 C 410 268 360 300 240 300 C 120 300 70 268 60 200 Z" fill="#5A3516"/>
  <g stroke="#E8B765" stroke-width="12" stroke-linecap="round"><path d="M150 226 l24 44"/><path d="M222 226 l24 44"/><path d="M294 226 l24 44"/></g>
</svg>
`;

/** Low Tide Rope and Twine: a coil with its end flying. */
export const ropeLogo = `<svg xmlns="http://www.w3.org/2000/svg" width="520" height="300" viewBox="0 0 520 300">
  <g fill="none" stroke="#1F6F8B" stroke-width="22" stroke-linecap="round">
    <ellipse cx="170" cy="150" rx="130" ry="110"/>
    <ellipse cx="170" cy="150" rx="84" ry="70"/>
    <ellipse cx="170" cy="150" rx="40" ry="32"/>
    <path d="M298 132 C 360 90 400 210 496 96"/>
  </g>
</svg>
`;

/** Windmill Radio: the old mill on the hill, sending. */
export const radioLogo = `<svg xmlns="http://www.w3.org/2000/svg" width="440" height="340" viewBox="0 0 440 340">
  <path d="M186 152 H254 L278 330 H162 Z" fill="#3B2F63"/>
  <path d="M178 152 C 178 116 198 96 220 96 C 242 96 262 116 262 152 Z" fill="#F0647A"/>
  <g fill="#8E7CC9" transform="rotate(45 220 140)">
    <path d="M214 140 L206 16 H234 L226 140 Z"/>
    <path d="M214 140 L206 264 H234 L226 140 Z"/>
    <path d="M220 134 L96 126 V154 L220 146 Z"/>
    <path d="M220 134 L344 126 V154 L220 146 Z"/>
  </g>
  <circle cx="220" cy="140" r="17" fill="#FFF6E6"/>
  <g fill="none" stroke="#F0647A" stroke-width="15" stroke-linecap="round">
    <path d="M340 60 A 128 128 0 0 1 340 220"/>
    <path d="M386 22 A 188 188 0 0 1 386 258"/>
    <path d="M100 60 A 128 128 0 0 0 100 220"/>
    <path d="M54 22 A 188 188 0 0 0 54 258"/>
  </g>
</svg>
`;
