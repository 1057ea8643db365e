import { useState } from 'preact/hooks';
import { said } from './said.js';

/** A button that puts a text into the clipboard and says so. */
export function Copy({ what, text }: { what: string; text: string }) {
  const [isDone, setDone] = useState(false);
  const copy = () => {
    void navigator.clipboard.writeText(text).then(() => {
      setDone(true);
      said.value = `${what} copied`;
      setTimeout(() => setDone(false), 1500);
    });
  };
  return (
    <button class="quiet copy" onClick={copy}>
      {isDone ? 'Copied' : `Copy ${what}`}
    </button>
  );
}
