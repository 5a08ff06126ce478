/** Those who want to hear of a change. One that fails is reported and does not keep the news from the others. */
export class Listeners {
  private readonly all = new Set<() => void>();

  readonly add = (listener: () => void): (() => void) => {
    this.all.add(listener);
    return () => void this.all.delete(listener);
  };

  tell(): void {
    for (const listener of [...this.all]) {
      try {
        listener();
      } catch (error) {
        reportError(error);
      }
    }
  }

  clear(): void {
    this.all.clear();
  }
}
