import { FLAG_TEXT } from '../core/layout/snapshot.js';
import type { WireSnapshot } from '../core/layout/wire.js';
import { px, type Interner } from './columns.js';
import { ownText, sourceOf } from './contents.js';
import { bareAddress, pictureDensity } from './picture-density.js';
import type { StyleReader } from './style-reader.js';
import { isBroken } from './traits.js';

type Columns = Pick<
  WireSnapshot,
  'shortFields' | 'lowFields' | 'pictures' | 'texts' | 'sources' | 'corners' | 'brokenPictures' | 'allowed'
>;

/** What a snapshot tells of some elements only, beside their rows: each entry begins with the row that it is about. */
export class SideColumns implements Columns {
  readonly shortFields: number[] = [];
  readonly lowFields: number[] = [];
  readonly pictures: number[] = [];
  readonly texts: number[] = [];
  readonly sources: number[] = [];
  readonly corners: number[] = [];
  readonly brokenPictures: WireSnapshot['brokenPictures'] = [];
  readonly allowed: WireSnapshot['allowed'] = [];

  constructor(
    private readonly strings: Interner,
    private readonly reader: StyleReader,
  ) {}

  /** What is told of an element that has a box. @param borders of the four sides, CSS px */
  addBox(
    node: number,
    element: Element,
    tag: string,
    style: CSSStyleDeclaration,
    row: number,
    borders: readonly [number, number, number, number],
  ): void {
    const radii = this.reader.corners(style, element, row, borders);
    if (radii !== '') this.corners.push(node, this.strings.number(radii));
    const source = sourceOf(element, tag);
    if (source !== null) this.sources.push(node, this.strings.number(source));
    if (tag === 'img') this.addPicture(node, element as HTMLImageElement);
  }

  private addPicture(node: number, image: HTMLImageElement): void {
    const { naturalWidth, naturalHeight } = image;
    if (isBroken(image)) this.brokenPictures.push({ node, url: bareAddress(image.currentSrc) });
    this.pictures.push(node, naturalWidth, naturalHeight, px(pictureDensity(image)));
  }

  /** What stands in a field that is too narrow for it. @param line the line of its words @param wanted CSS px */
  addShortField(line: number, wanted: number): void {
    this.shortFields.push(line, px(wanted));
  }

  /** The placeholder of a text area that is too low for it. @param line the line of its words @param high CSS px */
  addLowField(line: number, high: number): void {
    this.lowFields.push(line, px(high));
  }

  /** The rules that an element's author has allowed to be broken there. */
  addAllowed(node: number, element: Element): void {
    const rules = element.getAttribute('data-isoptic-allow');
    if (rules !== null) this.allowed.push({ node, rules });
  }

  /** The words of an element that is shown, and how they are set. */
  addWords(node: number, element: Element, flags: number, style: CSSStyleDeclaration): void {
    if ((flags & FLAG_TEXT) === 0) return;
    const setting = this.reader.setting(style, element);
    this.texts.push(node, this.strings.number(ownText(element)), this.strings.number(setting));
  }
}
