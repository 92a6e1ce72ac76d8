import { FRAME_WIDTH, frameObstacle, measureInFrame } from '../page/frame.ts';
import type { Workload } from '../types.ts';
import { WrongAnswer } from '../types.ts';
import { byName, edits, foldText, makeList, ROWS, type Species } from './list.ts';

export const SEED = 60;
export const KNOWN_DIGEST = 3764239492;
const ROW_HEIGHT = 24;
const ROUNDS_PER_MINUTE = 60;

const STYLE = `
  * { box-sizing: border-box; margin: 0 }
  body { font: 14px sans-serif; background: #fff; color: #111 }
  .list { width: ${FRAME_WIDTH - 20}px }
  .row { display: flex; height: ${ROW_HEIGHT}px; border-bottom: 1px solid #ddd; overflow: hidden }
  .row.out { display: none }
  .name { flex: 1; padding: 2px 8px; white-space: nowrap }
  .count { width: 80px; text-align: right }
  .place { width: 120px; padding-left: 12px; color: #555 }`;

interface Row {
  element: HTMLElement;
  count: HTMLElement;
  species: Species;
}

function build(document: Document, list: HTMLElement, species: Species): Row {
  const element = document.createElement('div');
  element.className = 'row';
  const name = document.createElement('span');
  name.className = 'name';
  name.textContent = species.name;
  const count = document.createElement('span');
  count.className = 'count';
  count.textContent = String(species.count);
  const place = document.createElement('span');
  place.className = 'place';
  place.textContent = species.wetland ? 'wetland' : 'dry ground';
  element.append(name, count, place);
  list.append(element);
  return { element, count, species };
}

/** Builds, sorts, filters and edits the list once, with the layout computed after each step. */
function round(body: HTMLElement, data: readonly Species[]): void {
  const document = body.ownerDocument;
  const list = document.createElement('div');
  list.className = 'list';
  body.append(list);
  const rows = data.map((species) => build(document, list, species));
  expectHeight(list, ROWS);

  const order = new Map(byName(data).map((species, place) => [species.id, place]));
  [...rows].sort((a, b) => order.get(a.species.id)! - order.get(b.species.id)!).forEach((row) => list.append(row.element));
  expectHeight(list, ROWS);

  let shown = 0;
  for (const row of rows) {
    row.element.classList.toggle('out', !row.species.wetland);
    shown += row.species.wetland ? 1 : 0;
  }
  expectHeight(list, shown);

  for (const edit of edits(SEED)) rows[edit.row]!.count.textContent = String(edit.count);
  expectHeight(list, shown);

  let digest = 0x811c9dc5;
  for (let row = list.firstElementChild; row; row = row.nextElementSibling) {
    if (!row.classList.contains('out')) digest = foldText(digest, `${row.children[0]!.textContent}${row.children[1]!.textContent}`);
  }
  if (digest !== KNOWN_DIGEST) throw new WrongAnswer('The list does not show what it should.');
  list.remove();
}

/** Asking for the height makes the browser lay out what has changed. */
function expectHeight(list: HTMLElement, rows: number): void {
  if (list.offsetHeight !== rows * ROW_HEIGHT) {
    throw new WrongAnswer(`The list is ${list.offsetHeight} pixels high and should be ${rows * ROW_HEIGHT}.`);
  }
}

/** Rounds per minute of building, sorting, filtering and editing a long list on a page. */
export const workload: Workload = {
  key: 'species-list',
  assets: [],
  obstacle: frameObstacle,
  run: (options) =>
    measureInFrame(options, STYLE, 'The list that is being measured', (body) => {
      const data = makeList(SEED);
      return {
        perRound: ROUNDS_PER_MINUTE,
        work(rounds) {
          for (let i = 0; i < rounds; i++) round(body, data);
        },
      };
    }),
};
