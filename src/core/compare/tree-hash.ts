/**
 * Hashes of texts and of what is made of them, as numbers of 53 bits: two elements of pages of 20,000 have the same by chance once in ten million pages. The same in
 * every layout. FNV-1a (Fowler, Noll, Vo) beside a polynomial hash, which go together into one number.
 */
export class TreeHash {
  private first = 0;
  private second = 0;

  begin(): this {
    this.first = 0x811c9dc5 | 0;
    this.second = 5381;
    return this;
  }

  text(text: string): this {
    let { first, second } = this;
    for (let i = 0; i < text.length; i++) {
      const code = text.charCodeAt(i);
      first = Math.imul(first ^ code, 0x01000193);
      second = (Math.imul(second, 31) + code) | 0;
    }
    this.first = first;
    this.second = second;
    // What one text ends with must not be what the next begins with.
    return this.word(0x1f);
  }

  /** @param hash of another thing */
  hash(hash: number): this {
    return this.word((hash % 4294967296) | 0).word(Math.floor(hash / 4294967296) | 0);
  }

  private word(word: number): this {
    this.first = Math.imul(this.first ^ word, 0x01000193);
    this.first ^= this.first >>> 15;
    this.second = (Math.imul(this.second, 0x9e3779b1) + word) | 0;
    this.second ^= this.second >>> 13;
    return this;
  }

  end(): number {
    return (this.first >>> 0) * 2097152 + (this.second >>> 11);
  }
}
