/** A browser on this machine, and how it is started. */
export interface FoundBrowser {
  readonly executable: string;
  /** Where it came from, in words for the user. */
  readonly origin: '--browser' | 'ISOPTIC_BROWSER' | 'system' | 'bundled';
  /** The program is the headless variant, which knows no other way to run. */
  readonly shell: boolean;
  /** Set for the child process beside the parent's own environment. */
  readonly env: Readonly<Record<string, string>>;
}
