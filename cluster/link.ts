import net from 'node:net';

/**
 * A line between two programs that can be cut, as a broken cable would: what is under way on it is lost, and whoever connects
 * hears nothing until it is mended.
 */
export class Link {
  readonly #server: net.Server;
  readonly #sockets = new Set<net.Socket>();
  #isCut = false;

  private constructor(from: number, to: number) {
    this.#server = net.createServer((near) => {
      this.#keep(near);
      if (this.#isCut) return;
      const far = this.#keep(net.connect(to, '127.0.0.1'));
      near.pipe(far).pipe(near);
    });
    this.#server.listen(from, '127.0.0.1');
  }

  /** @param from - the port that is connected to @param to - the port that it leads to */
  static async open(from: number, to: number): Promise<Link> {
    const link = new Link(from, to);
    await new Promise((resolve, reject) => link.#server.once('listening', resolve).once('error', reject));
    return link;
  }

  #keep(socket: net.Socket): net.Socket {
    this.#sockets.add(socket);
    socket.on('error', () => socket.destroy());
    socket.on('close', () => this.#sockets.delete(socket));
    return socket;
  }

  /** Nothing comes through any more; neither end is told. */
  cut(): void {
    this.#isCut = true;
    for (const socket of this.#sockets) socket.unpipe().pause();
  }

  /** Connections from then on come through; those that were cut are reset. */
  mend(): void {
    this.#isCut = false;
    for (const socket of this.#sockets) socket.destroy();
  }

  async close(): Promise<void> {
    this.mend();
    await new Promise((resolve) => this.#server.close(resolve));
  }
}
