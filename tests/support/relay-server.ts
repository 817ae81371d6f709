import { spawn } from 'node:child_process'
import { createServer } from 'node:net'
import { request } from 'node:http'

/** A port that is free now. */
export const freePort = () =>
  new Promise<number>((resolve, reject) => {
    const server = createServer()
    server.on('error', reject)
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address() as { port: number }
      server.close(() => resolve(port))
    })
  })

/** The built server, on a port that stays the same when it is stopped and started again. */
export class RelayServer {
  private child: ReturnType<typeof spawn> | null = null
  private constructor(
    readonly port: number,
    private readonly environment: Record<string, string>,
  ) {}

  static async start(environment: Record<string, string> = {}): Promise<RelayServer> {
    const server = new RelayServer(await freePort(), { HOST: '0.0.0.0', ...environment })
    await server.start()
    return server
  }

  get address() {
    return `http://127.0.0.1:${this.port}`
  }

  async start(): Promise<void> {
    this.child = spawn(process.execPath, ['.output/server/index.mjs'], {
      stdio: 'ignore',
      env: { ...process.env, ...this.environment, PORT: String(this.port) },
    })
    for (let tries = 0; tries < 300; tries++) {
      if ((await this.status('/api/relay')) === 200) return
      await new Promise((resolve) => setTimeout(resolve, 100))
    }
    throw new Error('The server did not answer.')
  }

  async stop(signal: NodeJS.Signals = 'SIGKILL'): Promise<void> {
    const { child } = this
    this.child = null
    if (!child || child.exitCode !== null) return
    const ended = new Promise((resolve) => child.once('exit', resolve))
    child.kill(signal)
    await ended
  }

  private status = (path: string) =>
    new Promise<number>((resolve) => {
      const asked = request({ port: this.port, host: '127.0.0.1', path }, (answer) => {
        answer.resume()
        resolve(answer.statusCode ?? 0)
      })
      asked.on('error', () => resolve(0))
      asked.end()
    })

  /** Asks for an upgrade. @returns the status; 101 where it was granted */
  upgrade(path: string, headers: Record<string, string> = {}): Promise<number> {
    const host = `127.0.0.1:${this.port}`
    return new Promise((resolve, reject) => {
      const asked = request({
        port: this.port,
        host: '127.0.0.1',
        path,
        headers: {
          'host': host,
          'origin': `http://${host}`,
          'connection': 'Upgrade',
          'upgrade': 'websocket',
          'sec-websocket-version': '13',
          'sec-websocket-key': Buffer.from('0123456789abcdef').toString('base64'),
          ...headers,
        },
      })
      asked.on('response', (answer) => {
        answer.resume()
        resolve(answer.statusCode ?? 0)
      })
      asked.on('upgrade', (answer, socket) => {
        socket.destroy()
        resolve(answer.statusCode ?? 0)
      })
      asked.on('error', reject)
      asked.end()
    })
  }
}
