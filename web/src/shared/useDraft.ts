import { useEffect, useState } from "react";

const PREFIX = "plumb draft ";

/** A text that is kept in this browser while it is typed, until it is saved or is again what it was. */
export function useDraft(name: string, saved: string): [string, (text: string) => void, () => void] {
  const key = PREFIX + name;
  const [text, setText] = useState(() => stored(key) ?? saved);
  useEffect(() => {
    if (text === saved) forget(key);
    else store(key, text);
  }, [key, text, saved]);
  return [
    text,
    setText,
    () => {
      forget(key);
      setText(saved);
    },
  ];
}

// a browser may refuse its store; the text is then kept as long as the page
function stored(key: string): string | null {
  try {
    return localStorage.getItem(key);
  } catch {
    return null;
  }
}
function store(key: string, text: string): void {
  try {
    localStorage.setItem(key, text);
  } catch {
    // nothing to do
  }
}
function forget(key: string): void {
  try {
    localStorage.removeItem(key);
  } catch {
    // nothing to do
  }
}

/** Drop all drafts: another person uses this browser now. */
export function forgetDrafts(): void {
  try {
    for (const key of Object.keys(localStorage)) if (key.startsWith(PREFIX)) localStorage.removeItem(key);
  } catch {
    // nothing to do
  }
}
