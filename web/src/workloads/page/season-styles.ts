import { WrongAnswer } from '../types.ts';
import type { PageWork } from './frame.ts';

/** Style changes: the seasons of a page of nested plots, by a class at its root, by variables, and plot by plot. */
const PLOTS = 24;
const ROWS = 12;
const SEASONS = ['spring', 'summer', 'autumn', 'winter'];

export const STYLE = `
  * { box-sizing: border-box; margin: 0 }
  main { --ground: 20; color: rgb(40, 40, 40) }
  main.spring { --ground: 10 } main.summer { --ground: 20 } main.autumn { --ground: 30 } main.winter { --ground: 40 }
  .plot { display: grid; width: 240px; padding: 2px }
  .plot .row { border-left: 1px solid rgb(calc(var(--ground) * 1), 90, 60); padding-left: 4px; line-height: 14px; height: 14px; font: 11px sans-serif }
  .plot:nth-child(2n) .row:nth-child(3n) { background: rgb(230, 240, 230) }
  .spring .plot > .row .sprout, .summer .plot.tall > .row .sprout { font-weight: 600 }
  .winter .plot:not(.tall) .row:first-child .sprout { visibility: hidden }
  .plot.cut .row + .row { margin-top: 1px }`;

/** Colour of a row's border in a season, as the rules say. */
export const groundOf = (season: number) => `rgb(${(season + 1) * 10}, 90, 60)`;

export function prepare(body: HTMLElement): PageWork {
  const document = body.ownerDocument;
  const styleOf = document.defaultView!.getComputedStyle.bind(document.defaultView);
  const main = document.createElement('main');
  const plots = Array.from({ length: PLOTS }, (_, p) => {
    const plot = document.createElement('div');
    plot.className = p % 3 === 0 ? 'plot tall' : 'plot';
    for (let r = 0; r < ROWS; r++) {
      const row = document.createElement('div');
      row.className = 'row';
      const sprout = document.createElement('span');
      sprout.className = 'sprout';
      sprout.textContent = `plot ${p}, row ${r}`;
      row.append(sprout);
      plot.append(row);
    }
    main.append(plot);
    return plot;
  });
  body.append(main);
  const rows = plots.map((plot) => plot.lastElementChild!);
  return {
    perRound: SEASONS.length,
    work(rounds) {
      for (let i = 0; i < rounds; i++) {
        SEASONS.forEach((season, s) => {
          main.className = season;
          for (const row of rows) {
            const colour = styleOf(row).borderLeftColor;
            if (colour !== groundOf(s)) throw new WrongAnswer(`A row's border is ${colour} in ${season} and should be ${groundOf(s)}.`);
          }
          plots.forEach((plot, p) => plot.classList.toggle('cut', (p + s) % 2 === 0));
          // Rows of 14 pixels and 4 of padding; in a plot that was cut each but the first stands one further down.
          const wanted = plots.reduce((sum, _, p) => sum + 4 + ROWS * 14 + ((p + s) % 2 === 0 ? ROWS - 1 : 0), 0);
          if (main.offsetHeight !== wanted) throw new WrongAnswer(`The plots are ${main.offsetHeight} pixels high in ${season} and should be ${wanted}.`);
        });
      }
    },
  };
}
