/**
 * Elements of which the browser's own style sheet (HTML, section 15) says nothing that is recorded here, so that only the
 * page's styles can.
 */
const tags = (list: string): ReadonlySet<string> => new Set(list.split(' '));

const EVERYDAY =
  'div span li section article header footer nav main aside figcaption strong em b i u s label abbr cite time';

/** No font, colour or white space of their own: a link has a colour, a heading has a size. */
export const PLAIN_TAGS = tags(`${EVERYDAY} p ul ol dl dt dd blockquote figure form address`);
/** No margin and no padding. */
export const EDGELESS_TAGS = tags(`${EVERYDAY} a dt small code sup sub kbd samp var`);
/** No width and no height. */
export const UNSIZED_TAGS = tags(
  `${EVERYDAY} p ul ol dl dt dd a h1 h2 h3 h4 h5 h6 small code pre blockquote figure form address sup sub kbd samp var mark`,
);
