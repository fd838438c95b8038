// What the libraries of the page's head leave on the window, as far as the scripts use it; and the audio thread.
interface Window {
  htmx: {
    trigger(element: Element, event: string): void;
    process(element: Element): void;
    ajax(method: string, address: string, options: { target: string, swap: string, values: object, headers: object }): Promise<void>;
  };
  Alpine: { data(name: string, make: () => object): void; mutateDom(work: () => void): void };
  tus: typeof import('tus-js-client');
}

declare const sampleRate: number;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}
declare function registerProcessor(name: string, processor: new () => AudioWorkletProcessor): void;

// newer than the types of the library of TypeScript
interface AudioContext {
  setSinkId?(deviceId: string): Promise<void>;
}
