/* global AudioWorkletProcessor, registerProcessor */
/** Hands on what a microphone hears, as it comes. Runs beside the page, so it is a file of its own. */
registerProcessor(
  'emery-tap',
  class extends AudioWorkletProcessor {
    process([input]) {
      if (input?.[0]) this.port.postMessage(input[0].slice());
      return true;
    }
  },
);
