/* global childrenOf, pathOf */
/** Runs in a page: gives it what the others here ask for: a selector that matches an element alone, and its children. */
export function installPaths() {
  // A form answers for its fields under its own properties' names.
  globalThis.childrenOf = (element) =>
    Object.getOwnPropertyDescriptor(Element.prototype, 'children').get.call(element);
  globalThis.pathOf = (element) => {
    const steps = [];
    for (let at = element; at !== document.body; at = at.parentElement) {
      const place = [...childrenOf(at.parentElement)].indexOf(at) + 1;
      steps.unshift(`${at.tagName.toLowerCase()}:nth-child(${place})`);
    }
    return ['body', ...steps].join(' > ');
  };
}

/**
 * Runs in a page: what the browser tells of every element that shows, so that a mistake can be planted where it can happen.
 * @returns one entry an element: `path` is a selector that matches it alone
 */
export function describe() {
  const clear = 'rgba(0, 0, 0, 0)';
  return [...document.body.querySelectorAll('*')].flatMap((element) => {
    if (
      element.closest('svg, script, style, noscript, template, iframe') ||
      !element.checkVisibility({ visibilityProperty: true, opacityProperty: true })
    )
      return [];
    const rect = element.getBoundingClientRect();
    if (rect.width < 4 || rect.height < 4 || rect.right < 0 || rect.left > innerWidth) return [];
    const style = getComputedStyle(element);
    const own = [...element.childNodes].filter(({ nodeType, data }) => nodeType === 3 && data.trim() !== '');
    const ownText = own.map(({ data }) => data.trim()).join(' ');
    const lineHeight = parseFloat(style.lineHeight) || 1.3 * parseFloat(style.fontSize);
    return [
      {
        path: pathOf(element),
        tag: element.tagName.toLowerCase(),
        display: style.display,
        inFlow: /static|relative/.test(style.position) && style.float === 'none',
        ownText,
        textLength: element.textContent.trim().length,
        x: rect.x,
        y: rect.y + window.scrollY,
        width: rect.width,
        height: rect.height,
        children: childrenOf(element).length,
        parentFlex: /flex/.test(getComputedStyle(element.parentElement).display),
        drawn: style.backgroundColor !== clear || parseFloat(style.borderTopWidth) > 0,
        control: element.matches('button, [role="button"], a.btn, a.button, input[type="submit"]'),
        scrolls: /auto|scroll/.test(style.overflowX) && element.scrollWidth > element.clientWidth + 1,
        fontSize: parseFloat(style.fontSize),
        lines: ownText === '' ? 0 : Math.round(rect.height / lineHeight),
        viewport: innerWidth,
      },
    ];
  });
}

/**
 * Runs in a page: paints it so that ink can be counted. `ids`: each element with words of its own writes them in a colour of its own.
 * `layers`: nothing but words, half see-through, so that words on words are darker. `controls`: each control and picture is one flat
 * colour of its own.
 * @returns for each number of a colour, what it is: its path's index among all elements, its rectangle, and the drawn box that it stands in
 */
export function paint(mode) {
  const colour = (id) =>
    `rgb(${(id & 63) * 4 + 1}, ${((id >> 6) & 63) * 4 + 2}, ${129 + ((id >> 12) & 15) * 4})`;
  document.getElementById('oracle-style')?.remove();
  const sheet = document.createElement('style');
  sheet.id = 'oracle-style';
  const still =
    '*, *::before, *::after { transition: none !important; animation: none !important; caret-color: transparent !important; text-shadow: none !important; box-shadow: none !important; scroll-behavior: auto !important }';
  const clear = 'rgba(0, 0, 0, 0)';
  const all = [...document.body.querySelectorAll('*')];
  const shows = (element) => element.checkVisibility({ visibilityProperty: true, opacityProperty: true });
  const boxOf = (rect) => ({
    x: rect.x + window.scrollX,
    y: rect.y + window.scrollY,
    width: rect.width,
    height: rect.height,
  });
  const painted = [];
  // A list whose overflow is hidden may be scrolled by a script that hears the wheel.
  const turned = new Map();
  const turnsWithWheel = (at) => {
    if (!turned.has(at)) {
      const { scrollLeft, scrollTop } = at;
      for (const [deltaX, deltaY] of [
        [0, 60],
        [60, 0],
      ])
        at.dispatchEvent(new WheelEvent('wheel', { deltaX, deltaY, bubbles: true, cancelable: true }));
      turned.set(at, at.scrollLeft !== scrollLeft || at.scrollTop !== scrollTop);
      at.scrollTo({ left: scrollLeft, top: scrollTop, behavior: 'instant' });
    }
    return turned.get(at);
  };
  if (mode === 'layers') {
    // Utility classes say `!important` too: what is said of a place that no class reaches outweighs them.
    const any = '*:not(#_#_#_#_)';
    const bare =
      'background: none !important; border-color: transparent !important; box-shadow: none !important; outline: none !important; text-decoration: none !important; color: rgba(0, 0, 0, 0.5) !important; -webkit-text-fill-color: rgba(0, 0, 0, 0.5) !important; -webkit-text-stroke: 0 !important; list-style: none !important; filter: none !important; backdrop-filter: none !important; mix-blend-mode: normal !important; border-image: none !important';
    sheet.textContent = `${still} html:not(#_#_#_#_#_) { background: #fff !important } ${any}, ${any}::before, ${any}::after { ${bare} } img:not(#_#_#_#_), svg:not(#_#_#_#_), video:not(#_#_#_#_), canvas:not(#_#_#_#_), iframe:not(#_#_#_#_), input:not(#_#_#_#_), select:not(#_#_#_#_), textarea:not(#_#_#_#_), hr:not(#_#_#_#_) { opacity: 0 !important }`;
  } else {
    sheet.textContent = still;
    for (const [index, element] of all.entries()) {
      if (element.closest('svg, script, style, noscript, template') || !shows(element)) continue;
      const style = getComputedStyle(element);
      const isControl = element.matches(
        'button, [role="button"], input:not([type="hidden"]), select, textarea, img, video',
      );
      const hasWords = [...element.childNodes].some(
        ({ nodeType, data }) => nodeType === 3 && data.trim() !== '',
      );
      if (mode === 'ids' ? !hasWords || element.matches('textarea, option, select') : !isControl) continue;
      const rect = element.getBoundingClientRect();
      if (rect.width < 1 || rect.height < 1) continue;
      const id = painted.length + 1;
      let box = null;
      for (
        let at = element, up = 0;
        mode === 'ids' && at && at !== document.body && up < 6;
        at = at.parentElement, up++
      ) {
        const own = getComputedStyle(at);
        const around = at.getBoundingClientRect();
        if (own.display === 'inline' || around.width > 0.97 * innerWidth) continue;
        if (
          own.backgroundColor === clear &&
          !(parseFloat(own.borderTopWidth) > 0 && own.borderTopStyle !== 'none')
        )
          continue;
        box = boxOf(around);
        break;
      }
      let shortened = false;
      for (let at = element, up = 0; at && up < 3; at = at.parentElement, up++)
        shortened ||= getComputedStyle(at).textOverflow === 'ellipsis' && at.scrollWidth > at.clientWidth;
      let scrolls = false;
      for (let at = element; at && at !== document.body; at = at.parentElement) {
        const { overflowX, overflowY } = getComputedStyle(at);
        scrolls ||=
          (/auto|scroll/.test(overflowX) && at.scrollWidth > at.clientWidth) ||
          (/auto|scroll/.test(overflowY) && at.scrollHeight > at.clientHeight) ||
          (/hidden/.test(overflowX + overflowY) &&
            (at.scrollWidth > at.clientWidth || at.scrollHeight > at.clientHeight) &&
            turnsWithWheel(at));
      }
      painted.push({
        id,
        index,
        scrolls,
        shortened,
        rect: boxOf(rect),
        box,
        words: element.textContent.trim().slice(0, 60),
        tag: element.tagName.toLowerCase(),
        fontSize: parseFloat(style.fontSize),
      });
      const set = (target, properties) => {
        for (const [name, value] of Object.entries(properties))
          target.style.setProperty(name, value, 'important');
      };
      const c = colour(id);
      if (mode === 'ids') {
        // What stands in its children has a colour of its own.
        set(element, { color: c, '-webkit-text-fill-color': c, '-webkit-text-stroke': '0' });
      } else {
        const flat = { background: c, color: c, '-webkit-text-fill-color': c, 'border-color': c };
        set(
          element,
          element.tagName === 'IMG' ? { 'background-color': c, 'object-position': '99999px 99999px' } : flat,
        );
        for (const inner of element.querySelectorAll('*')) set(inner, flat);
      }
    }
  }
  document.head.append(sheet);
  return {
    painted,
    // What the root or the body cuts off, nobody scrolls to.
    width: [document.documentElement, document.body].some((at) =>
      /hidden|clip/.test(getComputedStyle(at).overflowX),
    )
      ? window.innerWidth
      : document.documentElement.scrollWidth,
    height: document.documentElement.scrollHeight,
  };
}

/** Runs in a page: the rectangle of the element of a path, px of the page. */
export function rectOf(path) {
  const rect = document.querySelector(path)?.getBoundingClientRect();
  return rect
    ? { x: rect.x + window.scrollX, y: rect.y + window.scrollY, width: rect.width, height: rect.height }
    : null;
}
