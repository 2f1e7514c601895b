export function ownFolder(prefix: string): Promise<string>
export function claimFolder(folder: string): () => void
