import { type Server, type Socket, connect, createServer } from 'node:net';
import type { AddressInfo } from 'node:net';

/** A line to PostgreSQL that a test can cut, stall or close, where a network would. */
export class Proxy {
  private cutAfter: RegExp | null = null;
  private stalled = false;
  private readonly sockets = new Set<Socket>();
  private constructor(
    private readonly server: Server,
    /** The database's address by way of this line. */
    readonly url: string,
  ) {}

  static async open(target: string): Promise<Proxy> {
    const { hostname, port } = new URL(target);
    let self: Proxy | undefined;
    const server = createServer(client => {
      const database = connect(Number(port), hostname);
      let losing = false;
      for (const socket of [client, database]) {
        self?.sockets.add(socket);
        socket.on('error', () => undefined);
        socket.on('close', () => {
          client.destroy();
          database.destroy();
          self?.sockets.delete(socket);
        });
      }
      client.on('data', data => {
        if (self?.stalled) return;
        if (self?.cutAfter?.test(data.toString('latin1'))) {
          losing = true;
          self.cutAfter = null;
        }
        database.write(data);
      });
      database.on('data', data => {
        if (self?.stalled) return;
        // The database has done it; its answer does not arrive.
        if (losing) client.destroy();
        else client.write(data);
      });
    });
    await new Promise<void>(resolve => server.listen(0, '127.0.0.1', resolve));
    const at = new URL(target);
    at.port = String((server.address() as AddressInfo).port);
    self = new Proxy(server, at.href);
    return self;
  }

  /** Loses the answer to the next thing sent that looks like this, once. */
  loseAnswerTo(what: RegExp): void {
    this.cutAfter = what;
  }

  /** Lets nothing through, without a word: a cable that was pulled. */
  stall(on: boolean): void {
    this.stalled = on;
  }

  async close(): Promise<void> {
    for (const socket of this.sockets) socket.destroy();
    await new Promise(resolve => this.server.close(resolve));
  }
}
