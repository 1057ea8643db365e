/** Bits of the modifiers of a key, as browsers' protocols have them. */
const MODIFIERS: Readonly<Record<string, number>> = { Alt: 1, Control: 2, Meta: 4, Shift: 8 };

/** Named keys (UI Events KeyboardEvent key Values) with their legacy key codes. */
const NAMED: Readonly<Record<string, number>> = {
  Backspace: 8,
  Tab: 9,
  Enter: 13,
  Escape: 27,
  Space: 32,
  PageUp: 33,
  PageDown: 34,
  End: 35,
  Home: 36,
  ArrowLeft: 37,
  ArrowUp: 38,
  ArrowRight: 39,
  ArrowDown: 40,
  Delete: 46,
  F1: 112,
  F2: 113,
  F3: 114,
  F4: 115,
  F5: 116,
  F6: 117,
  F7: 118,
  F8: 119,
  F9: 120,
  F10: 121,
  F11: 122,
  F12: 123,
};

const TEXT: Readonly<Record<string, string>> = { Enter: '\r', Space: ' ' };

/** A key as a browser is told of it (UI Events, KeyboardEvent). */
export interface KeyEvent {
  readonly key: string;
  readonly code: string;
  readonly windowsVirtualKeyCode: number;
  readonly modifiers: number;
  readonly text?: string;
}

export const KEY_NAMES = [...Object.keys(NAMED), 'one character'];

/** `Control+A`, `Enter`, `x`: what the browser is told. Null for a key that there is not. */
export function keyEvent(written: string): KeyEvent | null {
  const parts = written === '+' ? ['+'] : written.split('+');
  const key = parts.pop()!;
  if (parts.some((part) => !(part in MODIFIERS))) return null;
  const modifiers = parts.reduce((bits, part) => bits | MODIFIERS[part]!, 0);
  const typed = (modifiers & ~MODIFIERS['Shift']!) === 0;
  if (key in NAMED) {
    const text = typed ? TEXT[key] : undefined;
    const name = key === 'Space' ? ' ' : key;
    return { key: name, code: key, windowsVirtualKeyCode: NAMED[key]!, modifiers, ...(text && { text }) };
  }
  if (!/^.$/u.test(key)) return null;
  const upper = key.toUpperCase();
  const code = /[A-Z]/.test(upper) ? `Key${upper}` : /\d/.test(key) ? `Digit${key}` : '';
  return {
    key,
    code,
    modifiers,
    windowsVirtualKeyCode: /[A-Z\d]/.test(upper) ? upper.charCodeAt(0) : 0,
    ...(typed && { text: key }),
  };
}
