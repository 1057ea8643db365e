import { useState } from 'preact/hooks';
import { said } from './state.js';

/** Text in which what stands between backticks is code. */
export function Quoted({ text }: { text: string }) {
  return <>{text.split('`').map((part, i) => (i % 2 === 1 ? <code key={i}>{part}</code> : part))}</>;
}

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

/** `0.8 s`, `120 ms` */
export const timeText = (ms: number): string =>
  ms >= 1000 ? `${(ms / 1000).toFixed(1)} s` : `${Math.round(ms)} ms`;
