export function freePort(): Promise<number>
export function startDatabase(
  folder: string,
  options?: { quick?: boolean; port?: number | null },
): Promise<{ port: number; pid: number; socket: string; url: string; stop: () => Promise<void>; ended: Promise<unknown> }>
