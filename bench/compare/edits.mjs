// Edits as developers make them, each at a random fitting element of a page. Every function runs in the page: it is given the element and does the
// edit; what it returns stands for the difference that has to be told: where it was, where it is, and as what.

/** Runs in the page: what edits may happen to, by their tests. */
export function inPage() {
  const seen = (element) => {
    const { width, height } = element.getBoundingClientRect();
    return (
      width > 20 &&
      height > 10 &&
      element.checkVisibility({ opacityProperty: true, visibilityProperty: true })
    );
  };
  const isBlock = (element) => !/^(inline|contents|none|table-.*)$/.test(getComputedStyle(element).display);
  const inFlow = (element) => /static|relative/.test(getComputedStyle(element).position);
  const hasWords = (element) =>
    [...element.childNodes].some((child) => child.nodeType === 3 && child.data.trim().length > 12);
  const parts = (element) => [...element.querySelectorAll(':scope > *')].filter(seen);
  const siblings = (element) => parts(element.parentElement).filter((other) => other !== element);
  const deep = (element) =>
    element !== document.body &&
    !element.closest('svg, select, head') &&
    element.parentElement?.closest('body');
  const isOpaque = (element) =>
    element.tagName === 'IMG' || /^rgb\(/.test(getComputedStyle(element).backgroundColor);
  let found = null;
  const opaque = () =>
    (found ??= [...document.body.querySelectorAll('*')].filter(
      (element) => isOpaque(element) && isBlock(element) && seen(element),
    ));
  /** Whether something opaque that is neither in it nor around it lies on an element at first. */
  const isUnder = (element) => {
    const box = element.getBoundingClientRect();
    return opaque().some((other) => {
      if (other.contains(element) || element.contains(other)) return false;
      const over = other.getBoundingClientRect();
      const [left, right] = [Math.max(box.left, over.left), Math.min(box.right, over.right)];
      const [top, bottom] = [Math.max(box.top, over.top), Math.min(box.bottom, over.bottom)];
      if (right - left < 20 || bottom - top < 10) return false;
      const order = document.elementsFromPoint((left + right) / 2, (top + bottom) / 2);
      return order.includes(other) && order.indexOf(other) < order.indexOf(element);
    });
  };
  const restyle = (property, value) => (element) => {
    element.style.setProperty(property, value);
    return { is: element };
  };
  return {
    insert: {
      kinds: ['inserted'],
      fits: (element) =>
        isBlock(element) && inFlow(element) && !/^(TR|TD|TH|TBODY|LI|DT|DD|OPTION)$/.test(element.tagName),
      edit(element) {
        const added = document.createElement('p');
        added.textContent = 'From the spring on the first boat leaves an hour earlier.';
        element.before(added);
        return { is: added };
      },
    },
    remove: {
      kinds: ['removed'],
      fits: (element) => isBlock(element) && inFlow(element) && siblings(element).length > 0,
      edit(element) {
        element.remove();
        return {};
      },
    },
    hide: {
      kinds: ['hidden'],
      fits: (element) => isBlock(element) && inFlow(element) && siblings(element).length > 0,
      edit: restyle('display', 'none'),
    },
    fade: { kinds: ['hidden'], fits: () => true, edit: restyle('visibility', 'hidden') },
    move: {
      kinds: ['moved'],
      fits: (element) => isBlock(element) && inFlow(element),
      edit: (element) => {
        element.style.position = 'relative';
        element.style.left = '14px';
        return { is: element };
      },
    },
    drop: {
      kinds: ['moved', 'resized'],
      fits: (element) =>
        isBlock(element) &&
        inFlow(element) &&
        element.previousElementSibling &&
        seen(element.previousElementSibling),
      edit: (element) => {
        element.style.marginTop = `${Number.parseFloat(getComputedStyle(element).marginTop) + 31}px`;
        return { is: element };
      },
    },
    resize: {
      kinds: ['resized'],
      fits: (element) =>
        isBlock(element) &&
        inFlow(element) &&
        element.getBoundingClientRect().width > 120 &&
        !/^(TR|TD|TH|TBODY|TABLE)$/.test(element.tagName),
      edit: (element) => {
        element.style.width = `${Math.round(0.8 * element.getBoundingClientRect().width)}px`;
        element.style.minWidth = '0';
        element.style.flex = 'none';
        return { is: element };
      },
    },
    pad: {
      kinds: ['resized'],
      fits: (element) =>
        isBlock(element) &&
        inFlow(element) &&
        parts(element).length > 0 &&
        getComputedStyle(element).boxSizing &&
        !/^(TR|TBODY|TABLE)$/.test(element.tagName),
      edit: (element) => {
        element.style.paddingBottom = `${Number.parseFloat(getComputedStyle(element).paddingBottom) + 22}px`;
        return { is: element };
      },
    },
    wrap: {
      kinds: ['wrapped', 'resized'],
      fits: (element) =>
        isBlock(element) &&
        inFlow(element) &&
        hasWords(element) &&
        parts(element).length === 0 &&
        element.getBoundingClientRect().height < 60 &&
        element.getBoundingClientRect().width > 160,
      edit: (element) => {
        element.style.maxWidth = `${Math.round(0.45 * element.getBoundingClientRect().width)}px`;
        return { is: element };
      },
    },
    reorder: {
      kinds: ['reordered'],
      fits: (element) =>
        isBlock(element) &&
        inFlow(element) &&
        element.nextElementSibling &&
        seen(element.nextElementSibling) &&
        element.nextElementSibling.outerHTML !== element.outerHTML &&
        !/^(TR|TD|TH|DT|DD)$/.test(element.tagName),
      edit: (element) => {
        const other = element.nextElementSibling;
        other.after(element);
        return { is: element, or: other };
      },
    },
    colour: { kinds: ['restyled'], fits: hasWords, edit: restyle('color', 'rgb(140, 20, 90)') },
    ground: { kinds: ['restyled'], fits: isBlock, edit: restyle('background-color', 'rgb(250, 226, 190)') },
    border: { kinds: ['restyled'], fits: isBlock, edit: restyle('border', '1px solid rgb(140, 20, 90)') },
    restack: {
      kinds: ['stacked'],
      fits: (element) => opaque().includes(element) && inFlow(element) && isUnder(element),
      edit(element) {
        element.style.position = 'relative';
        element.style.zIndex = '9999';
        return { is: element };
      },
    },
    radius: {
      kinds: ['restyled'],
      fits: (element) => isBlock(element) && getComputedStyle(element).backgroundColor !== 'rgba(0, 0, 0, 0)',
      edit: restyle('border-radius', '17px'),
    },
    shadow: {
      kinds: ['restyled'],
      fits: isBlock,
      edit: restyle('box-shadow', '0 2px 9px rgba(0, 0, 0, .4)'),
    },
    type: {
      kinds: ['restyled'],
      fits: hasWords,
      edit: (element) => {
        element.style.fontSize = `${Number.parseFloat(getComputedStyle(element).fontSize) + 3}px`;
        return { is: element };
      },
    },
    weight: {
      kinds: ['restyled'],
      fits: (element) => hasWords(element) && Number(getComputedStyle(element).fontWeight) < 600,
      edit: restyle('font-weight', '800'),
    },
    picture: {
      kinds: ['picture'],
      fits: (element) => element.tagName === 'IMG' && !element.closest('picture'),
      async edit(element) {
        const { width, height } = element.getBoundingClientRect();
        element.removeAttribute('srcset');
        element.src = `data:image/svg+xml,${encodeURIComponent(`<svg xmlns="http://www.w3.org/2000/svg" width="${Math.round(width)}" height="${Math.round(height)}"><rect width="100%" height="100%" fill="teal"/></svg>`)}`;
        await element.decode();
        return { is: element };
      },
    },
    word: {
      kinds: ['text'],
      fits: hasWords,
      edit: (element) => {
        const node = [...element.childNodes].find(
          (child) => child.nodeType === 3 && child.data.trim().length > 12,
        );
        const words = node.data.split(' ');
        const at = words.findLastIndex((word) => /^\w{3,}$/.test(word.trim()));
        words[Math.max(0, at)] = 'midsummer';
        node.data = words.join(' ');
        return { is: element };
      },
    },
    wrapper: {
      kinds: ['enclosed'],
      fits: (element) =>
        isBlock(element) &&
        inFlow(element) &&
        !/^(TR|TD|TH|TBODY|LI|DT|DD|OPTION)$/.test(element.tagName) &&
        !/flex|grid/.test(getComputedStyle(element.parentElement).display),
      edit: (element) => {
        const round = document.createElement('div');
        round.className = 'round';
        element.before(round);
        round.append(element);
        return { is: round, or: element };
      },
    },
    seenAndDeep: (element) => seen(element) && deep(element),
  };
}
