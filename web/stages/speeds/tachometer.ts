import { simulatedReading } from '@emery/core/speeds';

/** A tachometer that is pointed at something and read, whatever makes it. */
export interface Tachometer {
  readonly name: string;
  /** True for a stand-in that measures nothing. */
  readonly simulated: boolean;
  /** The speed of what it is pointed at, rev/min. Rejects with a plain reason where it sees nothing. */
  read: () => Promise<number>;
}

/** Reads a drive that is drawn, with a slip chosen beforehand: `trueRpm` says what the mark under its beam turns. */
export function simulatedTachometer(trueRpm: () => number, random: () => number = Math.random): Tachometer {
  return {
    name: 'Simulated tachometer',
    simulated: true,
    read: async () => {
      const rpm = trueRpm();
      if (rpm < 30) throw new Error('No mark passes the beam: the engine is stopped.');
      return simulatedReading(rpm, random);
    },
  };
}

/** What of the browser's serial port is used. */
export interface SerialSource {
  readonly readable: ReadableStream<Uint8Array> | null;
}

/**
 * A tachometer with a serial port that writes its reading as text, a line at a time, the figure first or last: `RPM
 * 2117`, `2117.4`.
 */
export function serialTachometer(port: SerialSource, patienceMs = 5000): Tachometer {
  return {
    name: 'Tachometer on the serial port',
    simulated: false,
    read: async () => {
      if (!port.readable) throw new Error('The port is closed.');
      const reader = port.readable.getReader();
      const timer = setTimeout(() => void reader.cancel(), patienceMs);
      const decoder = new TextDecoder();
      let text = '';
      try {
        for (;;) {
          const { value, done } = await reader.read();
          if (value) text += decoder.decode(value, { stream: true });
          // The first line may have been begun before we listened.
          const lines = text.split(/[\r\n]+/);
          for (const line of lines.slice(1, -1)) {
            const rpm = readingIn(line);
            if (rpm !== null) return rpm;
          }
          if (done) throw new Error('No reading received. Point it at the mark and read again.');
        }
      } finally {
        clearTimeout(timer);
        reader.releaseLock();
      }
    },
  };
}

/** The speed in a line of text; null where there is none. */
export function readingIn(line: string): number | null {
  const figures = line.match(/\d+(?:\.\d+)?/g);
  const rpm = figures?.length === 1 ? Number(figures[0]) : Number.NaN;
  return Number.isFinite(rpm) && rpm < 200_000 ? rpm : null;
}
