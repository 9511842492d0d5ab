import DOMPurify from 'dompurify';

export interface CleanSvg {
  readonly text: string;
  readonly width: number;
  readonly height: number;
  /** What was taken out or put in, for the user to know. */
  readonly notes: readonly string[];
}

/** Length in CSS pixels of a plain or pixel length; others (percent, em) do not say a size. */
function pixels(length: string | null): number | undefined {
  const match = /^\s*([\d.]+)\s*(px|pt|mm|cm|in)?\s*$/.exec(length ?? '');
  if (!match) return undefined;
  const perUnit = { px: 1, pt: 96 / 72, mm: 96 / 25.4, cm: 96 / 2.54, in: 96 }[match[2] ?? 'px']!;
  const value = Number(match[1]) * perUnit;
  return value > 0 ? value : undefined;
}

/**
 * Makes an SVG safe and of a known size: scripts, event handlers and links to elsewhere go, width and height are
 * written in.
 * @throws {Error} when it is not well-formed or draws nothing.
 */
export function cleanSvg(dirty: string, fileName: string): CleanSvg {
  // Handlers go before anything parses them, or the page's policy reports each one, though none would ever run.
  const source = dirty.replace(/\son\w+\s*=\s*("[^"]*"|'[^']*')/gi, ' ');
  const parsed = new DOMParser().parseFromString(source, 'image/svg+xml');
  if (parsed.querySelector('parsererror') || parsed.documentElement.localName !== 'svg') {
    throw new Error(
      `"${fileName}" is a damaged SVG: it is not well-formed. Export it again from your drawing program.`,
    );
  }
  const notes: string[] = [];
  // Parsed as HTML, which knows SVG's mixed-case names; the tree is then written as XML again.
  const body: ParentNode = DOMPurify.sanitize(source, {
    USE_PROFILES: { svg: true, svgFilters: true },
    RETURN_DOM: true,
  }) as HTMLElement;
  const active = /<script|\son\w+\s*=|javascript:/i.test(dirty);
  const svg = body.querySelector('svg');
  if (!svg) throw new Error(`"${fileName}" is an SVG with nothing to draw in it.`);
  let linked = false;
  for (const element of [...svg.querySelectorAll('*')]) {
    for (const name of ['href', 'xlink:href']) {
      const target = element.getAttribute(name);
      if (target && !target.startsWith('#') && !target.startsWith('data:image/')) {
        element.removeAttribute(name);
        linked = true;
      }
    }
    if (/url\(\s*['"]?\s*(https?:)?\/\//i.test(element.getAttribute('style') ?? '')) {
      element.removeAttribute('style');
      linked = true;
    }
    if (
      element.localName === 'style' &&
      /@import|url\(\s*['"]?\s*(https?:)?\/\//i.test(element.textContent ?? '')
    ) {
      element.remove();
      linked = true;
    }
  }
  if (active) notes.push('The script in this SVG was taken out. The picture stays.');
  if (linked) notes.push('Links from this SVG to files elsewhere were taken out.');

  const box = (svg.getAttribute('viewBox') ?? '')
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  const viewed =
    box.length === 4 && box[2]! > 0 && box[3]! > 0 ? { width: box[2]!, height: box[3]! } : undefined;
  let width = pixels(svg.getAttribute('width'));
  let height = pixels(svg.getAttribute('height'));
  if (!width || !height) {
    const drawn = viewed ?? drawnSize(svg);
    if (!drawn) throw new Error(`"${fileName}" is an SVG with nothing to draw in it.`);
    if (width) height = (width * drawn.height) / drawn.width;
    else if (height) width = (height * drawn.width) / drawn.height;
    else ({ width, height } = drawn);
    if (!viewed) notes.push('This SVG gives no size; the box of its drawing was taken.');
  }
  if (!viewed && !svg.hasAttribute('viewBox')) svg.setAttribute('viewBox', `0 0 ${width} ${height}`);
  svg.setAttribute('width', String(width));
  svg.setAttribute('height', String(height));
  return { text: new XMLSerializer().serializeToString(svg), width: width!, height: height!, notes };
}

/** The box of what an SVG draws, measured by laying it out of sight; also sets its viewBox to that box. */
function drawnSize(svg: Element): { width: number; height: number } | undefined {
  const holder = document.createElement('div');
  holder.style.cssText = 'position:absolute;left:-10000px;visibility:hidden';
  const copy = document.importNode(svg, true) as unknown as SVGSVGElement;
  holder.append(copy);
  document.body.append(holder);
  const box = copy.getBBox();
  holder.remove();
  if (!(box.width > 0 && box.height > 0)) return undefined;
  svg.setAttribute('viewBox', `${box.x} ${box.y} ${box.width} ${box.height}`);
  return { width: box.width, height: box.height };
}
