/** Sends every message back: a buffer is handed over, anything else is copied. */
self.onmessage = (event: MessageEvent<ArrayBuffer | { number: number; words: string[] }>) => {
  if (event.data instanceof ArrayBuffer) {
    new Uint32Array(event.data)[0]!++;
    self.postMessage(event.data, { transfer: [event.data] });
  } else {
    self.postMessage({ ...event.data, number: event.data.number + 1 });
  }
};
