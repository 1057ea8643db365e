import { findAll } from './find.js';
import { inlineStyleOf } from './own-accessors.js';

/** Hides or takes out elements before the page is read; what a page adds later is caught by the next call. */
export function alter({ hide, remove }: { hide: readonly string[]; remove: readonly string[] }): void {
  for (const element of hide.flatMap(findAll)) {
    // What is inside may be made visible again by a rule of its own.
    for (const hidden of [element, ...element.querySelectorAll('*')]) set(hidden, 'visibility', 'hidden');
  }
  for (const element of remove.flatMap(findAll)) set(element, 'display', 'none');
}

function set(element: Element, property: string, value: string): void {
  inlineStyleOf(element).setProperty(property, value, 'important');
}
