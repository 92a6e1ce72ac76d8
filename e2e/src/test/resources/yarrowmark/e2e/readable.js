// What cannot be read or reached at this width, in words; nothing where all is well.
const main = document.querySelector('main') ?? document.body;
const found = [];
const shown = (e) => e.offsetParent !== null && getComputedStyle(e).visibility !== 'hidden' && !e.closest('.sr-only');
const named = (e) => `${e.tagName.toLowerCase()} "${(e.textContent ?? '').trim().slice(0, 40)}"`;
if (document.documentElement.scrollWidth > innerWidth + 1)
  found.push(`the page is ${document.documentElement.scrollWidth} px wide`);
if (main.scrollWidth > main.clientWidth + 1) found.push(`the view is ${main.scrollWidth} px wide`);
for (const e of document.querySelectorAll('a, button, h1, h2, h3, th, label')) {
  const { width, height } = e.getBoundingClientRect();
  if ((e.textContent ?? '').trim() && shown(e) && (width < 8 || height < 8)) found.push(`${named(e)} is ${width} by ${height} px`);
}
for (const e of main.querySelectorAll('[role=table], table, [data-scroller]'))
  if (shown(e) && e.getBoundingClientRect().height < 60) found.push(`a table is ${e.getBoundingClientRect().height} px high`);
// What is scrolled off to the side can be reached only where that scrolls.
for (const e of main.querySelectorAll('a, button, input, select, textarea')) {
  const box = e.getBoundingClientRect();
  let clipped = false;
  for (let p = e.parentElement; p && shown(e) && p !== main.parentElement; p = p.parentElement) {
    const style = getComputedStyle(p).overflowX;
    if (style === 'auto' || style === 'scroll') break;
    const edge = p.getBoundingClientRect();
    if ((style === 'hidden' || style === 'clip') && box.left > edge.right - 4) clipped = true;
  }
  if (clipped) found.push(`${named(e)} is cut off`);
}
return found.join('\n');
