import { once } from 'node:events';
import { connect, createServer, type AddressInfo, type Server, type Socket } from 'node:net';

/** Stands between two who speak over TCP, and can be cut or fall silent. */
export class Line {
  private readonly sockets = new Set<Socket>();
  private server: Server | null = null;
  port = 0;

  constructor(
    private readonly host: string,
    private readonly target: number,
  ) {}

  async open(): Promise<void> {
    this.server = createServer(near => {
      const far = connect(this.target, this.host);
      for (const socket of [near, far]) {
        this.sockets.add(socket);
        socket.on('error', () => socket.destroy());
        socket.on('close', () => {
          near.destroy();
          far.destroy();
        });
      }
      near.pipe(far).pipe(near);
    });
    this.server.listen(this.port, '127.0.0.1');
    await once(this.server, 'listening');
    this.port = (this.server.address() as AddressInfo).port;
  }

  /** Nothing comes through any more, and neither end is told. */
  fallSilent(): void {
    for (const socket of this.sockets) socket.unpipe().pause();
  }

  async cut(): Promise<void> {
    const { server } = this;
    this.server = null;
    this.sockets.forEach(socket => socket.destroy());
    this.sockets.clear();
    if (!server) return;
    server.close();
    await once(server, 'close');
  }
}
