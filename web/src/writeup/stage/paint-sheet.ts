import { fontAddress } from '../../export/font.ts';

/** Drawings within the sheet as pictures, made once. */
const pictures = new WeakMap<SVGElement, HTMLImageElement | 'making'>();

/** A drawing with the colours of the sheet in it: a picture knows no style sheet. */
async function picture(svg: SVGElement): Promise<void> {
  pictures.set(svg, 'making');
  const style = getComputedStyle(svg);
  const copy = svg.cloneNode(true) as SVGElement;
  const box = svg.getBoundingClientRect();
  copy.setAttribute('width', String(box.width * 2));
  copy.setAttribute('height', String(box.height * 2));
  copy.setAttribute('font-family', 'YarrowSans');
  const text = new XMLSerializer()
    .serializeToString(copy)
    .replace(/var\((--[\w-]+)(?:, var\((--[\w-]+)\))?\)/g, (_, name: string, or: string | undefined) => {
      const given = style.getPropertyValue(name).trim();
      return given || (or ? style.getPropertyValue(or).trim() : 'currentColor');
    })
    .replace(
      />/,
      `><style>@font-face{font-family:YarrowSans;src:url(${await fontAddress()});font-weight:200 900}</style>`,
    );
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(text)}`;
  await image.decode();
  pictures.set(svg, image);
}

/** Lines of a text as they are broken on the screen. */
function linesOf(node: Text): { words: string; box: DOMRect }[] {
  const range = document.createRange();
  const found: { words: string; box: DOMRect }[] = [];
  for (const match of node.data.matchAll(/\S+\s*/g)) {
    range.setStart(node, match.index);
    range.setEnd(node, match.index + match[0].trimEnd().length);
    const box = range.getClientRects()[0];
    if (!box || box.width === 0) continue;
    const last = found.at(-1);
    if (last && Math.abs(last.box.top - box.top) < box.height / 2) last.words += match[0];
    else found.push({ words: match[0], box });
  }
  return found;
}

/**
 * Paints what stands on the stage, as it stands there at this moment: boxes, words and drawings. Done by ourselves because
 * what a browser records of a tab has no transparency and needs somebody to allow it.
 *
 * @param width of the picture, in its own pixels
 */
export function paintSheet(
  sheet: HTMLElement,
  to: CanvasRenderingContext2D,
  width: number,
  paper: string | null,
): void {
  const outer = (sheet.parentElement ?? sheet).getBoundingClientRect();
  const height = to.canvas.height;
  // Whatever the window is like, all of it is in the picture, in the middle.
  const scale = Math.min(width / outer.width, height / outer.height);
  const left = outer.left - (width / scale - outer.width) / 2;
  const top = outer.top - (height / scale - outer.height) / 2;
  to.clearRect(0, 0, width, height);
  if (paper !== null) {
    to.fillStyle = paper;
    to.fillRect(0, 0, width, height);
  }
  const fill = (box: DOMRect, colour: string, radius: number) => {
    to.fillStyle = colour;
    to.beginPath();
    to.roundRect(
      (box.left - left) * scale,
      (box.top - top) * scale,
      box.width * scale,
      box.height * scale,
      radius * scale,
    );
    to.fill();
  };
  const paint = (element: Element, alpha: number) => {
    const style = getComputedStyle(element);
    const seen = alpha * Number(style.opacity);
    if (style.display === 'none' || style.visibility === 'hidden' || seen < 0.004) return;
    to.globalAlpha = seen;
    const box = element.getBoundingClientRect();
    if (style.backgroundColor !== 'rgba(0, 0, 0, 0)')
      fill(box, style.backgroundColor, parseFloat(style.borderTopLeftRadius) || 0);
    const before = getComputedStyle(element, '::before');
    if (before.content !== 'none' && before.position === 'absolute')
      fill(
        new DOMRect(
          box.left + parseFloat(before.left),
          box.top + parseFloat(before.top),
          parseFloat(before.width),
          parseFloat(before.height),
        ),
        before.backgroundColor,
        0,
      );
    if (element instanceof SVGElement) {
      const image = pictures.get(element);
      if (image === undefined) void picture(element).catch(() => pictures.delete(element));
      else if (image !== 'making')
        to.drawImage(image, (box.left - left) * scale, (box.top - top) * scale, box.width * scale, box.height * scale);
      return;
    }
    if (element instanceof HTMLImageElement) {
      if (element.complete && element.naturalWidth > 0)
        to.drawImage(
          element,
          (box.left - left) * scale,
          (box.top - top) * scale,
          box.width * scale,
          box.height * scale,
        );
      return;
    }
    const cut = style.overflowX === 'hidden';
    if (cut) {
      to.save();
      to.beginPath();
      to.rect((box.left - left) * scale, (box.top - top) * scale, box.width * scale, box.height * scale);
      to.clip();
    }
    for (const child of element.childNodes) {
      if (child instanceof Text) {
        to.globalAlpha = seen;
        to.font = `${style.fontStyle} ${style.fontWeight} ${(parseFloat(style.fontSize) * scale).toFixed(2)}px ${style.fontFamily}`;
        to.fillStyle = style.color;
        to.textBaseline = 'alphabetic';
        const up = to.measureText('x').fontBoundingBoxAscent;
        for (const line of linesOf(child))
          to.fillText(line.words.trimEnd(), (line.box.left - left) * scale, (line.box.top - top) * scale + up);
      } else if (child instanceof Element) paint(child, seen);
    }
    if (cut) to.restore();
  };
  paint(sheet, 1);
  to.globalAlpha = 1;
}

/** Whether every drawing on the sheet is ready to be painted; makes those that are not. */
export async function prepareSheet(sheet: HTMLElement): Promise<void> {
  await document.fonts.ready;
  await Promise.all(
    [...sheet.querySelectorAll('svg')]
      .filter((svg) => svg.parentElement?.closest('svg') === null && !pictures.has(svg))
      .map((svg) => picture(svg)),
  );
}
