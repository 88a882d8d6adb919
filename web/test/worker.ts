import { MessageChannel, type MessagePort } from 'node:worker_threads';
import { expose, type Endpoint } from 'comlink';

/** Stands in for the browser's worker: what a test exposes is called over a channel, as in a browser. */
export class ChannelWorker {
  static all: ChannelWorker[] = [];
  /** What the next worker answers with. */
  static api: object = {};
  isEnded = false;
  private readonly port: MessagePort;

  constructor() {
    const { port1, port2 } = new MessageChannel();
    expose(ChannelWorker.api, port1 as unknown as Endpoint);
    this.port = port2;
    ChannelWorker.all.push(this);
  }
  static get last(): ChannelWorker {
    return ChannelWorker.all.at(-1)!;
  }
  postMessage(message: unknown, transfer: unknown[] = []): void {
    if (!this.isEnded) this.port.postMessage(message, transfer as never[]);
  }
  addEventListener(type: string, listener: never): void {
    this.port.addEventListener(type, listener);
    this.port.start();
  }
  removeEventListener(type: string, listener: never): void {
    this.port.removeEventListener(type, listener);
  }
  terminate(): void {
    this.isEnded = true;
    this.port.close();
  }
}
