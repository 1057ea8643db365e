import type { Rule } from '../rule.js';

/** The server answered with an error, so what was rendered is its error page. Status codes: RFC 9110, section 15. */
export const httpError: Rule = {
  meta: {
    name: 'http-error',
    family: 'delivery',
    severity: 'error',
    standsAlone: true,
    summary: 'the server answers with an error instead of the page',
  },
  check({ httpStatus, view }) {
    if (httpStatus === null || httpStatus < 400) return [];
    return [
      {
        node: view.root,
        related: [],
        key: `http-error ${httpStatus}`,
        rect: { x: 0, y: 0, width: view.snapshot.viewport.width, height: view.snapshot.viewport.height },
        by: null,
        message: `The server answered ${httpStatus}; the pictures show its error page.`,
      },
    ];
  },
};
