// The most memory that a process held, told by itself at its end.

const TOLD = /(\d+) MB at most/g;

/** In front of a program, on the command line of Node. */
export const TELL_MEMORY = [
  '--import',
  'data:text/javascript,process.on("exit",()=>process.stderr.write(Math.round(process.resourceUsage().maxRSS/1024)+" MB at most\\n"))',
];

/** Megabytes. Threads tell for themselves: the last is the process. */
export function memoryOf({ stderr }: { readonly stderr: string }): number {
  return Math.max(0, ...[...stderr.matchAll(TOLD)].map(([, megabytes]) => Number(megabytes)));
}
