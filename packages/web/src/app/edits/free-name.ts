/** A name that is free: the one that was meant, else with the first number from 2 behind it that makes it so. */
export function freeName(name: string, isFree: (name: string) => boolean): string {
  for (let i = 1; ; i++) {
    const free = i === 1 ? name : `${name} ${i}`;
    if (isFree(free)) return free;
  }
}
