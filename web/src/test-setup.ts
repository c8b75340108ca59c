import "@testing-library/jest-dom/vitest";
import { cleanup } from "@testing-library/react";
import { afterEach, vi } from "vitest";

afterEach(cleanup);

// what Mantine and our own measuring ask of a browser and jsdom does not have
Object.defineProperty(window, "matchMedia", {
  value: (query: string) => ({ matches: false, media: query, addEventListener: vi.fn(), removeEventListener: vi.fn() }),
});
Object.defineProperty(document, "fonts", { configurable: true, value: new EventTarget() });
class Observer {
  observe() {}
  unobserve() {}
  disconnect() {}
}
window.ResizeObserver = Observer;
Element.prototype.scrollIntoView = vi.fn();
