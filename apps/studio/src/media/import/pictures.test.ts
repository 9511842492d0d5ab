import { foreignFile, pngSize, sniffPicture } from './sniff';
import { cleanSvg } from './svg';

const bytes = (text: string) => Uint8Array.from(text, (c) => c.charCodeAt(0));

describe('what a file is, by its first bytes', () => {
  it.each([
    ['\x89PNG\r\n\x1a\n....', 'image/png'],
    ['\xff\xd8\xff\xe0....', 'image/jpeg'],
    ['RIFF....WEBPVP8 ', 'image/webp'],
    ['GIF89a......', 'image/gif'],
    ['\0\0\0\x20ftypavif', 'image/avif'],
    ['<?xml version="1.0"?>\n<!-- made by hand -->\n<svg xmlns="x">', 'image/svg+xml'],
    ['\n  <svg>', 'image/svg+xml'],
    ['<html><svg></svg>', undefined],
    ['\0\0\0\x20ftypisom', undefined],
    ['words', undefined],
    ['', undefined],
  ])('%j', (start, type) => {
    expect(sniffPicture(bytes(start))).toBe(type);
  });

  it('reads a PNG’s size before decoding', () => {
    const png = new Uint8Array(30);
    new DataView(png.buffer).setUint32(16, 1200);
    new DataView(png.buffer).setUint32(20, 34);
    expect(pngSize(png)).toEqual({ width: 1200, height: 34 });
    expect(pngSize(new Uint8Array(3))).toEqual({ width: 0, height: 0 });
  });
});

describe('SVGs', () => {
  const svg = (inside: string, attributes = 'width="80" height="40"') =>
    `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${attributes}>${inside}</svg>`;
  const box = '<rect width="60" height="30" fill="#0a0"/>';

  it('lose scripts, handlers and links, and say so', () => {
    const clean = cleanSvg(
      svg(
        `<script>alert(1)</script><g onclick="x()">${box}</g><a xlink:href="javascript:x()"><circle r="2"/></a><use xlink:href="http://e.invalid/a#b"/><style>@import url(http://e.invalid/c.css); rect{fill:red}</style>`,
      ),
      'a.svg',
    );
    expect(clean.text).not.toMatch(/script|onclick|javascript|e\.invalid/);
    expect(clean.text).toContain('#0a0');
    expect(clean.notes.join(' ')).toMatch(/script in this SVG was taken out/);
  });

  it.each([
    ['width="80" height="40"', 80, 40],
    ['viewBox="0 0 300 100"', 300, 100],
    ['width="100%" height="100%" viewBox="0 0 20 10"', 20, 10],
    ['width="150" viewBox="0 0 300 100"', 150, 50],
    ['height="1in" viewBox="0 0 300 100"', 288, 96],
    ['width="30mm" height="15mm"', 113.3858, 56.6929],
  ])('with %s count as %d × %d', (attributes, width, height) => {
    const clean = cleanSvg(svg(box, attributes), 'a.svg');
    expect(clean.width).toBeCloseTo(width, 3);
    expect(clean.height).toBeCloseTo(height, 3);
    expect(clean.text).toMatch(/viewBox="/);
  });

  it('that are not well-formed are refused by name', () => {
    expect(() => cleanSvg('<svg><rect', 'torn.svg')).toThrow('"torn.svg" is a damaged SVG');
    expect(() => cleanSvg('<html xmlns="http://www.w3.org/1999/xhtml"/>', 'page.svg')).toThrow('"page.svg"');
  });
});

describe('a file that browsers cannot use', () => {
  // First bytes as the formats' own documents have them: ISO/IEC 13818-1, RIFF, SMPTE ST 377-1, TIFF 6.0, AIFF 1.3.
  it.each([
    ['\0\0\x01\xba\x44', /MPEG-1 or MPEG-2 programme stream/],
    ['RIFF\x10\0\0\0AVI LIST', /an AVI/],
    ['\x06\x0e\x2b\x34\x02\x05', /MXF/],
    ['MM\0*\0\0\0\x08', /TIFF/],
    ['\0\0\0\x18ftypheic', /HEIF/],
    ['FORM\0\0\0\x10AIFFCOMM', /AIFF/],
  ])('%j is told by its name, with what to do', (start, what) => {
    const found = foreignFile(bytes(start));
    expect(found?.what).toMatch(what);
    expect(found?.advice).toMatch(/^(Convert|Export)/);
  });

  it('and one that nobody knows is not guessed at', () => {
    expect(foreignFile(bytes('words and words'))).toBeUndefined();
  });
});
