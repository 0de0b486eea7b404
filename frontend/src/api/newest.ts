/** Sends one after another; of what comes in meanwhile only the newest. */
export class Newest<T> {
  private busy = false;
  private waiting: { value: T } | null = null;

  constructor(
    private readonly send: (value: T) => Promise<unknown>,
    private readonly failed: (error: unknown) => void,
  ) {}

  async show(value: T) {
    this.waiting = { value };
    if (this.busy) return;
    this.busy = true;
    try {
      while (this.waiting) {
        const next: { value: T } = this.waiting;
        this.waiting = null;
        await this.send(next.value);
      }
    } catch (error) {
      this.failed(error);
    } finally {
      this.busy = false;
    }
  }
  /** What was not sent yet is not sent any more. */
  drop() {
    this.waiting = null;
  }
}
