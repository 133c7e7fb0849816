/** Prints text, and waits until a pipe has taken all of it; one that nobody reads any more takes nothing, quietly. */
export async function print(text: string): Promise<void> {
  await new Promise<void>((resolve) => process.stdout.write(text, () => resolve()));
}

/** Lets a command go on when whoever read what it prints has gone, as `head` does; other faults of the output still end it. */
export function endQuietlyWithoutReader(): void {
  for (const stream of [process.stdout, process.stderr]) {
    stream.on('error', (error: NodeJS.ErrnoException) => {
      if (error.code !== 'EPIPE') throw error;
    });
  }
}
