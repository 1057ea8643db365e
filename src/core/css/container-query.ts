import { conditionOf, type Condition, type MediaEnvironment } from './media-query.js';

/** The prelude of a `@container` rule (CSS Conditional 5, section 5.2). */
export interface ContainerQuery {
  /** Of the containers that it asks; null for any. */
  readonly name: string | null;
  /**
   * Whether it holds in a container. Null where it can't be read, or asks for something else than the inline size.
   * @param inlineSize of the container's content box, CSS px
   * @param fontSize of the container, CSS px: what `em` is here
   */
  readonly holds: ((inlineSize: number, fontSize: number) => boolean | null) | null;
}

/** A name stands before the condition; these words begin a condition. */
const NAMED = /^(?!not\b|style\(|scroll-state\()([\w-]+)\s+/i;
const OTHER_FEATURES = /\b(height|block-size|aspect-ratio|orientation)\b|\b(style|scroll-state)\(/i;

export function containerQueryOf(text: string): ContainerQuery {
  const name = NAMED.exec(text)?.[1] ?? null;
  const rest = name === null ? text : text.slice(NAMED.exec(text)![0].length);
  const condition: Condition | null = OTHER_FEATURES.test(rest) ? null : conditionOf(rest);
  return {
    name,
    holds: condition && ((inlineSize, fontSize) => condition.holds(inlineSize, containerOf(fontSize))),
  };
}

/** A container has nothing but its size. */
function containerOf(fontSize: number): MediaEnvironment {
  return {
    height: NaN,
    screen: { width: NaN, height: NaN },
    dpr: NaN,
    fontSize,
    medium: 'screen',
    words: {},
  };
}
