// What everything that changes a site can be asked.

export interface WriteOptions {
  /** Make a patch for `git apply`, and write nothing. */
  readonly patch?: boolean | undefined;
}
