/** Lays the page out with another viewport meta tag until what it returns is called. */
export async function withViewport(content: string): Promise<() => Promise<void>> {
  const tags = document.querySelectorAll('meta[name="viewport" i]');
  const last = tags[tags.length - 1];
  const meta = last ?? document.createElement('meta');
  const before = meta.getAttribute('content');
  if (!last) {
    meta.setAttribute('name', 'viewport');
    document.head.append(meta);
  }
  meta.setAttribute('content', content);
  await laidOut();
  return async () => {
    if (!last) meta.remove();
    else if (before === null) meta.removeAttribute('content');
    else meta.setAttribute('content', before);
    await laidOut();
  };
}

/** The viewport takes a new size with the next frame. */
function laidOut(): Promise<void> {
  return new Promise((resolve) => {
    const late = setTimeout(resolve, 500);
    requestAnimationFrame(() =>
      requestAnimationFrame(() => {
        clearTimeout(late);
        resolve();
      }),
    );
  });
}
