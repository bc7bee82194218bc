import type { Moved } from '@cocotte/contract';
import { createParser } from 'eventsource-parser';

/** Somebody who follows a kitchen's feed: keeps what it was told. */
export class Listener {
  readonly told: Moved[] = [];
  beats = 0;
  /** Resolves when the stream was ended at the other side. */
  readonly over: Promise<void>;
  private readonly stopping = new AbortController();
  private wake: () => void = () => undefined;

  private constructor(response: Response) {
    const parser = createParser({
      onEvent: ({ data }) => {
        this.told.push(JSON.parse(data) as Moved);
        this.wake();
      },
      onComment: () => {
        this.beats += 1;
        this.wake();
      },
    });
    this.over = (async () => {
      try {
        const text = (response.body as ReadableStream).pipeThrough(new TextDecoderStream());
        for await (const chunk of text as unknown as AsyncIterable<string>) parser.feed(chunk);
      } catch {
        // Ended without a word.
      }
      this.wake();
    })();
  }

  /** Opens the stream at an address, with a cookie. */
  static async open(url: string, cookie: string): Promise<Listener> {
    const stopping = new AbortController();
    const response = await fetch(url, { headers: { cookie }, signal: stopping.signal });
    if (response.status !== 200) throw new Error(`the feed answers ${response.status}`);
    const listener = new Listener(response);
    listener.stopping.signal.addEventListener('abort', () => stopping.abort());
    return listener;
  }

  /** Waits until what was told satisfies a test. */
  async until(done: (listener: this) => boolean): Promise<void> {
    const deadline = Date.now() + 60_000;
    while (!done(this)) {
      if (Date.now() > deadline) throw new Error(`was told only ${JSON.stringify(this.told)}`);
      await new Promise<void>(resolve => {
        const timer = setTimeout(resolve, 200);
        this.wake = () => {
          clearTimeout(timer);
          resolve();
        };
      });
    }
  }

  stop(): void {
    this.stopping.abort();
  }
}
