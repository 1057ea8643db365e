/** The report's own behaviour; without it the report is still complete and its links still jump. */

const pictures = [...document.querySelectorAll<HTMLImageElement>('.picture img')];
const scale = document.querySelector<HTMLInputElement>('#scale');
const scaleText = document.querySelector<HTMLOutputElement>('output[for="scale"]');

function drawAt(factor: number): void {
  for (const picture of pictures) {
    picture.width = Math.round(Number(picture.dataset['width']) * factor);
    picture.height = Math.round(Number(picture.dataset['height']) * factor);
  }
  if (scaleText) scaleText.value = `${Math.round(factor * 100)} %`;
}

scale?.addEventListener('input', () => drawAt(Number(scale.value)));

/** Brings an outline into view, in the page and in its row of pictures, and makes it stand out. */
function show(anchor: string): void {
  const mark = document.getElementById(anchor);
  if (!mark?.classList.contains('mark')) return;
  for (const other of document.querySelectorAll('.mark.current')) other.classList.remove('current');
  mark.classList.add('current');
  const still = matchMedia('(prefers-reduced-motion: reduce)').matches;
  mark.querySelector('rect')?.scrollIntoView({
    block: 'center',
    inline: 'center',
    behavior: still ? 'instant' : 'smooth',
  });
  mark.closest<HTMLElement>('.pane')?.focus({ preventScroll: true });
}

document.addEventListener('click', (event) => {
  const link = event.target instanceof Element ? event.target.closest<HTMLAnchorElement>('.seen a') : null;
  if (!link) return;
  event.preventDefault();
  const anchor = link.hash.slice(1);
  history.pushState(null, '', link.hash);
  show(anchor);
});

addEventListener('popstate', () => show(location.hash.slice(1)));
if (location.hash) show(location.hash.slice(1));
