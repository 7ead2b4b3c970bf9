/**
 * A log as far as it is kept, which may be a moment ahead of what the screen shows of it: one small part can show the
 * newest at once, and all that is slow to draw comes after.
 */
export class LogAhead<S> {
  private newest: S | null = null;
  private readonly listeners = new Set<() => void>();

  /** @param draw draws the newest at once, wherever the log is shown */
  constructor(private readonly draw: () => void) {}

  /** Whether somebody shows the newest already, so that the rest may wait. */
  get isShown(): boolean {
    return this.listeners.size > 0;
  }

  /** The newest, or null where nothing is loaded yet. */
  readonly state = (): S | null => this.newest;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  tell(state: S): void {
    this.newest = state;
    for (const listener of [...this.listeners]) listener();
  }

  /**
   * Draws at once what is only kept so far: what is about to act must act on what the technician sees.
   *
   * @param drawn what the one who is about to act was drawn with
   */
  catchUp(drawn: S): void {
    if (this.newest !== null && this.newest !== drawn) this.draw();
  }
}
